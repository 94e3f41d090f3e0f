import { RECIPE_NAMES, refuseNumbers } from '../../motion/table.ts'
import { LONGEST_SHOT_FRAMES } from '../../time/length.ts'
import { follows, recipeShot } from '../model/guides.ts'
import { refusal } from '../model/refusal.ts'
import { LIMITS } from '../model/model.ts'
import { has } from '../model/table.ts'
import { family } from './family.ts'
import { isFrame, PLAIN } from './kinds.ts'

export const guides = family('guide', {
  facts: PLAIN,
  refuse(document, guide) {
    const { recipe, numbers, take, layer, from, laid } = guide
    if (!has(document.takes, take)) return refusal('unknown-take', take)
    if (!has(document.layers, layer)) return refusal('unknown-layer', layer)
    if (!isFrame(from) || from >= LONGEST_SHOT_FRAMES) return refusal('bad-value', 'frame of a guide')
    if (!RECIPE_NAMES.includes(recipe)) return refusal('bad-value', 'recipe of a guide')
    if (laid.drawings.length > LIMITS.drawings || laid.beats.length > LIMITS.beats)
      return refusal('bad-value', 'laid by a guide')
    const no = refuseNumbers(recipe, numbers, recipeShot(document))
    if (no) return refusal('bad-value', `${no.field} ${no.why}`)
    return follows(document, guide, guide.id) ? refusal('bad-value', 'what the guide follows: it follows itself') : null
  },
})
