<script setup lang="ts">
import { ElButton, ElForm, ElFormItem, ElInput } from 'element-plus'
import { computed, reactive, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { Refused } from '../../api/ask.ts'
import HopPicture from './HopPicture.vue'
import { useSession } from '../../stores/session.ts'

const session = useSession()
const route = useRoute()
const router = useRouter()
const form = reactive({ email: '', name: '', password: '' })
const problem = ref('')
const faults = reactive<Record<string, string>>({})
const busy = ref(false)
const isFirst = computed(() => session.needsOwner)

watch(
  () => session.demo,
  demo => {
    if (demo) Object.assign(form, demo)
  },
  { immediate: true },
)

async function enter(): Promise<void> {
  problem.value = ''
  for (const field of Object.keys(faults)) delete faults[field]
  busy.value = true
  try {
    if (isFirst.value) await session.setUp(form.email, form.name, form.password)
    else await session.signIn(form.email, form.password)
    const back = String(route.query.back ?? '')
    await router.push(back.startsWith('/') && !back.startsWith('//') ? back : { name: 'shelf' })
  } catch (error) {
    for (const { field, problem: what } of error instanceof Refused ? error.details : []) faults[field] = what
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="entrance">
    <section class="picture" aria-hidden="true"><HopPicture /></section>
    <section class="door">
      <h1>Unhurried Sketch</h1>
      <p class="promise">You draw; it measures.</p>
      <ElForm label-position="top" :disabled="busy" @submit.prevent="enter">
        <p v-if="isFirst" class="soft">Nobody has an account here yet. The first one owns this desk.</p>
        <p v-else-if="session.demo" class="soft">This is the demo: the account is filled in.</p>
        <ElFormItem v-if="isFirst" label="Your name" :error="faults.name">
          <ElInput v-model="form.name" autocomplete="name" />
        </ElFormItem>
        <ElFormItem label="E-mail" :error="faults.email">
          <ElInput v-model="form.email" type="email" autocomplete="username" />
        </ElFormItem>
        <ElFormItem label="Password" :error="faults.password">
          <ElInput
            v-model="form.password"
            type="password"
            show-password
            :autocomplete="isFirst ? 'new-password' : 'current-password'"
          />
        </ElFormItem>
        <p v-if="problem" class="rust" role="alert">{{ problem }}</p>
        <ElButton type="primary" native-type="submit" size="large" :loading="busy">{{
          isFirst ? 'Make this desk mine' : 'Sit down'
        }}</ElButton>
      </ElForm>
      <p class="care soft">
        Drawing for hours strains hands, neck and eyes: look up now and then. Fast flashing pictures can trigger
        seizures in some people.
      </p>
    </section>
  </main>
</template>

<style scoped>
.entrance {
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 420px;
}

.picture {
  display: grid;
  place-items: center;
  padding: 40px;
  min-height: 0;
}

.door {
  background: var(--edge);
  border-left: 1px solid var(--rule);
  padding: 0 52px;
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 8px;
}

h1 {
  font: 500 32px var(--serif);
}

.promise {
  font: italic 17px var(--serif);
  color: var(--soft);
  margin-bottom: 26px;
}

form p {
  margin-bottom: 14px;
}

.el-button {
  width: 100%;
  margin-top: 8px;
}

.care {
  margin-top: 40px;
  font-size: 12.5px;
}

@media (width < 900px) {
  .entrance {
    grid-template-columns: 1fr;
  }

  .picture {
    display: none;
  }
}
</style>
