import type { Severity } from '@unhurried/core/measure'
import { CircleAlert, Eye, Info } from 'lucide-vue-next'
import type { Component } from 'vue'

/** How grave a finding is, as a sign and in words: never by its colour alone. */
export const SEVERITY_SIGNS: Readonly<Record<Severity, { readonly icon: Component; readonly words: string }>> = {
  note: { icon: Info, words: 'worth knowing' },
  look: { icon: Eye, words: 'worth a look' },
  wrong: { icon: CircleAlert, words: 'hardly meant' },
}
