<script setup lang="ts">
import { ElButton, ElDialog, ElForm, ElFormItem, ElInput, ElMessage } from 'element-plus'
import { reactive, ref, watch } from 'vue'
import { Refused } from '../../api/ask.ts'
import { session } from '../../api/calls.ts'

/** Another password for one's own account. */
const shown = defineModel<boolean>({ required: true })
const form = reactive({ password: '', fresh: '' })
const faults = reactive<Record<string, string>>({})
const busy = ref(false)
watch(shown, () => {
  Object.assign(form, { password: '', fresh: '' })
  for (const field of Object.keys(faults)) delete faults[field]
})
async function change(): Promise<void> {
  for (const field of Object.keys(faults)) delete faults[field]
  busy.value = true
  try {
    await session.newPassword(form.password, form.fresh)
    shown.value = false
    ElMessage({ message: 'The password is changed; everywhere else one signs in anew.', type: 'success' })
  } catch (error) {
    for (const { field, problem } of error instanceof Refused ? error.details : []) faults[field] = problem
    const isWrong = error instanceof Refused && error.code === 'wrong-sign-in'
    if (isWrong) faults.password = 'This is not the password now.'
    else if (!faults.password && !faults.fresh) faults.fresh = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <ElDialog v-model="shown" title="Another password" width="420px" align-center>
    <ElForm label-position="top" :disabled="busy" @submit.prevent="change">
      <ElFormItem label="The one now" :error="faults.password">
        <ElInput v-model="form.password" type="password" autocomplete="current-password" />
      </ElFormItem>
      <ElFormItem label="The new one, at least 10 characters" :error="faults.fresh">
        <ElInput v-model="form.fresh" type="password" autocomplete="new-password" />
      </ElFormItem>
      <ElButton type="primary" native-type="submit">change it</ElButton>
    </ElForm>
  </ElDialog>
</template>
