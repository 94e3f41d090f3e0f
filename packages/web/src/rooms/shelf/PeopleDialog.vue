<script setup lang="ts">
import { NewMember, type AddedMember, type FilmCard, type Member } from '@unhurried/contract'
import { ElButton, ElDialog, ElInput, ElOption, ElSelect } from 'element-plus'
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { Refused } from '../../api/ask.ts'
import { people } from '../../api/calls.ts'

/** Who draws and who reviews in a film: its owner lets people in and go. */
const film = defineModel<FilmCard | null>({ required: true })
const shown = computed({ get: () => film.value !== null, set: on => on || (film.value = null) })
const ROLES = {
  reviewer: 'reviews: looks, plays and remarks',
  animator: 'draws',
} as const satisfies Record<NewMember['role'], string>
const all = shallowRef<readonly Member[]>([])
const form = reactive<NewMember>({ email: '', name: '', role: 'reviewer' })
const faults = reactive<Record<string, string>>({})
const problem = ref('')
/** who was let in last and had no account: the password is told this once */
const fresh = shallowRef<AddedMember | null>(null)
const busy = ref(false)

async function attempt(doing: (film: string) => Promise<unknown>): Promise<void> {
  const { id } = film.value ?? {}
  if (!id || busy.value) return
  problem.value = ''
  for (const field of Object.keys(faults)) delete faults[field]
  busy.value = true
  try {
    await doing(id)
    const now = await people.of(id)
    if (film.value?.id === id) all.value = now
  } catch (error) {
    for (const { field, problem: what } of error instanceof Refused ? error.details : []) faults[field] = what
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
watch(film, now => {
  all.value = []
  fresh.value = null
  if (now) void attempt(async () => undefined)
})

const letIn = () =>
  attempt(async id => {
    fresh.value = null
    const email = form.email.trim()
    const read = NewMember.safeParse({ ...form, email, name: form.name.trim() || email.split('@')[0] })
    if (!read.success) throw new Error(`${email}: ${read.error.issues[0]?.message ?? ''}`)
    const added = await people.letIn(id, read.data)
    if (added.password !== null) fresh.value = added
    Object.assign(form, { email: '', name: '' })
  })
const giveRole = ({ email, name }: Member, role: NewMember['role']) =>
  attempt(id => people.letIn(id, { email, name, role }))
const letGo = ({ account }: Member) => attempt(id => people.letGo(id, account))
</script>

<template>
  <ElDialog v-model="shown" :title="`People of “${film?.name ?? ''}”`" width="600px" align-center>
    <ul aria-label="People">
      <li v-for="one in all" :key="one.account">
        <span class="who"
          >{{ one.name }} <span class="soft">{{ one.email }}</span></span
        >
        <span v-if="one.role === 'owner'" class="soft">owns it</span>
        <template v-else>
          <ElSelect
            :model-value="one.role"
            size="small"
            :aria-label="`What ${one.name} does`"
            @update:model-value="role => giveRole(one, role)"
          >
            <ElOption v-for="(words, role) in ROLES" :key="role" :value="role" :label="words" />
          </ElSelect>
          <button class="plain go" :aria-label="`Let ${one.name} go`" @click="letGo(one)">let go</button>
        </template>
      </li>
    </ul>
    <p v-if="fresh" class="fresh" role="status">
      {{ fresh.member.name }} had no account here, and has one now. The first password, told this once:
      <code>{{ fresh.password }}</code>
    </p>
    <form aria-label="Let somebody in" novalidate @submit.prevent="letIn">
      <ElInput v-model="form.email" type="email" placeholder="e-mail" aria-label="E-mail" maxlength="200" />
      <ElInput v-model="form.name" placeholder="name" aria-label="Name" maxlength="80" />
      <ElSelect v-model="form.role" aria-label="What they do">
        <ElOption v-for="(words, role) in ROLES" :key="role" :value="role" :label="words" />
      </ElSelect>
      <ElButton type="primary" native-type="submit" :disabled="busy || !form.email.trim()">let in</ElButton>
    </form>
    <p v-if="problem" class="rust" role="alert">{{ faults.email ?? faults.name ?? problem }}</p>
    <p class="soft">
      Whoever has no account here gets one, with a password that you hand on; it is changed by a press on one’s own name
      above the shelf.
    </p>
  </ElDialog>
</template>

<style scoped>
ul {
  margin: 0 0 14px;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 38px;
  border-bottom: 1px solid var(--rule);
}

.who {
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}

li :deep(.el-select) {
  width: 250px;
}

.go {
  color: var(--green);
}

form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}

form + p {
  margin-top: 12px;
}

.fresh {
  margin: 0 0 14px;
  padding: 10px 12px;
  background: var(--green-wash);
}

code {
  display: block;
  margin-top: 4px;
  font-size: 17px;
  user-select: all;
}
</style>
