import { ASSET_KINDS, type AssetName } from '@unhurried/core/assets'
import { LIMITS } from '@unhurried/core/document'
import { BATCHES_PER_REQUEST, type Drawing as CoreDrawing } from '@unhurried/core/document'
import { z } from 'zod'
import { ShotDocument } from './document.ts'
import { type Batch } from './operations.ts'
import { Format, FrameCount, Id, MediaId, Name, RowId, Source } from './pieces.ts'

export const Email = z.email('must be an e-mail address').max(200)
export const Password = z
  .string()
  .min(10, 'must have at least 10 characters')
  .max(200, 'must have at most 200 characters')

export const SignIn = z.strictObject({ email: Email, password: z.string().min(1, 'must not be empty').max(200) })
export const SetUp = z.strictObject({ email: Email, name: Name, password: Password })

export const Account = z.object({ id: RowId, name: z.string(), email: z.string() })

/** Who is signed in, and what the sign-in page needs to know. */
export const SessionState = z.object({
  account: Account.nullable(),
  /** true while nobody has an account yet: the first visitor becomes the owner */
  needsOwner: z.boolean(),
  /** filled in on the sign-in page in demo mode only */
  demo: z.object({ email: z.string(), password: z.string() }).nullable(),
})

export const MEMBER_ROLES = ['owner', 'animator', 'reviewer'] as const
export const MemberRole = z.enum(MEMBER_ROLES)

/** Parts in a film that its owner gives. */
export const GIVEN_ROLES = ['animator', 'reviewer'] as const
/** People of a film, with its owner. */
export const MOST_MEMBERS = 50
export const Member = z.object({ account: RowId, name: z.string(), email: z.string(), role: MemberRole })
export const Members = z.object({ members: z.array(Member) })
/** Somebody to be let in; the name is for who has no account yet. */
export const NewMember = z.strictObject({ email: Email, name: Name, role: z.enum(GIVEN_ROLES) })
/** Who was let in; with the first password of who had no account, told this once. */
export const AddedMember = z.object({ member: Member, password: z.string().nullable() })
export const NewPassword = z.strictObject({
  password: z.string().min(1, 'must not be empty').max(200),
  fresh: Password,
})

export const ShotCard = z.object({
  id: RowId,
  film: RowId,
  name: z.string(),
  seq: z.number(),
  removed: z.boolean(),
})
export const FilmCard = z.object({
  id: RowId,
  name: z.string(),
  /** whose work it is a study of; empty where it is one's own */
  study: z.string(),
  role: MemberRole,
  shots: z.array(ShotCard),
})
export const Shelf = z.object({ films: z.array(FilmCard) })

const InBin = z.object({ id: RowId, name: z.string(), removedAt: z.iso.datetime(), leavesAt: z.iso.datetime() })
/** What was removed from the shelf, the newest first, and when each leaves for good. */
export const Bin = z.object({
  /** how long things lie there */
  days: z.number(),
  films: z.array(InBin.extend({ shots: z.number() })),
  shots: z.array(InBin.extend({ film: z.string(), mayThrowAway: z.boolean() })),
})

/** Shots of a film in the order they are to lie in; those not named lie behind them, as they did. */
export const Order = z.strictObject({ shots: z.array(RowId).min(1).max(500) })

export const NewFilm = z.strictObject({ name: Name })
export const Rename = z.strictObject({ name: Name })
/** Another name of a film, or whose work all of it is a study of. */
export const ChangeFilm = z.strictObject({ name: Name.optional(), study: Source.optional() })
export const NewShot = z.strictObject({ name: Name, format: Format, frames: FrameCount, layer: Name.optional() })

/** So many of the newest batches are told when a shot is opened: more than a desk has on their way at a time. */
export const RECENT_BATCHES = 200

/** Names one life of the database. Restored from a copy it begins another: what a desk knows may not be in it. */
const Epoch = z.string().max(60)

export const OpenShot = z.object({
  shot: ShotCard,
  epoch: Epoch,
  filmName: z.string(),
  /** whose work the whole film is a study of; empty where it is one's own */
  filmStudy: z.string().default(''),
  role: MemberRole,
  seq: z.number(),
  /** the newest batches in the document: what a desk still holds of them needs not be sent or done again */
  recent: z.array(Id),
  document: ShotDocument,
})

/** What a desk may read without checking it again: the server answers with documents it checked when they were made. */
export const OpenShotReply = OpenShot.extend({ document: z.custom<z.infer<typeof ShotDocument>>() })
export type OpenShotReply = z.infer<typeof OpenShotReply>

/** Journal numbers are kept as four bytes. */
const HIGHEST_SEQ = 2 ** 31 - 1
const Seq = z.number().int().min(0).max(HIGHEST_SEQ)

/** What a desk says it knows; the server holds it against the journal. */
const Known = {
  /** the life of the database it was told in */
  epoch: Epoch.optional(),
  /** the batch with the number it knows everything up to */
  last: Id.optional(),
}

/**
 * The request as a whole. Batches and samples are each looked at on their own, by `Batch` and `readSample`, so that one
 * that is unfit does not take the others along.
 */
export const PostBatches = z.strictObject({
  /** the journal number up to which this desk knows everything */
  since: Seq,
  ...Known,
  batches: z.array(z.unknown()).max(BATCHES_PER_REQUEST),
  /** stored things (stroke samples, pictures) that the batches use and that are new, by id, as base64 */
  samples: z
    .record(Id, z.unknown())
    .refine(table => Object.keys(table).length <= LIMITS.elementsPerDrawing, 'must hold fewer samples'),
})

/** Enough of a batch to say which one is meant. */
export const NamedBatch = z.object({ id: Id })

/** Bytes of a stored thing as base64, for now of any kind: what it is of is said by the element that shows it. */
export const AssetText = z
  .string()
  .max(Math.ceil(Math.max(...Object.values(ASSET_KINDS).map(kind => kind.mostBytes)) / 3) * 4)
  .refine(isBase64, 'must be base64')

/** Looks for what does not belong: a pattern for the whole of it runs out of stack on megabytes. */
function isBase64(text: string): boolean {
  const end = text.indexOf('=')
  const fill = end < 0 ? '' : text.slice(end)
  return text.length % 4 === 0 && !/[^A-Za-z0-9+/=]/.test(text) && ['', '=', '=='].includes(fill)
}

/** Why the journal gives a batch up for good, besides the refusals of its operations. */
export const BATCH_VERDICTS = [
  /** it is not written as batches are */
  'unfit',
  /** it needs strokes or pictures that are neither stored nor sent along, or that cannot be read */
  'unknown-asset',
  'unfit-asset',
  /** a batch or stroke of this id is stored, with other content */
  'other-content',
  /** the shot or the film holds as many bytes as it may */
  'no-room',
  /** whoever did it may look and remark, and no more */
  'not-yours',
] as const
export type BatchVerdict = (typeof BATCH_VERDICTS)[number]

/** The most bytes of strokes in one shot, and of strokes and journals in one film. */
export const STROKE_BYTES_PER_SHOT = 96 * 1024 * 1024
export const BYTES_PER_FILM = 4 * 1024 * 1024 * 1024

/** Recordings and clips that are going to be sent: the SHA-256 of all their bytes, and how many they are. */
export const BeginMedia = z.strictObject({
  id: MediaId,
  bytes: z
    .number()
    .int()
    .min(1)
    .max(2 ** 40),
})
/** Whether all of them are there, or which pieces are missing. */
export const MediaState = z.object({ whole: z.boolean(), missing: z.array(z.number()) })
export type MediaState = z.infer<typeof MediaState>
/** How much a film holds of them, and how much one, and all together, may be; in bytes. */
export const MediaRoom = z.object({ used: z.number(), oneBytes: z.number(), filmBytes: z.number() })
export type MediaRoom = z.infer<typeof MediaRoom>
/** The number of a piece, from 0. */
export const MediaChunk = z.coerce.number().int().min(0).max(1_000_000)

/** The most bytes of one request that brings batches, and of any other. */
export const LARGEST_POST = 8 * 1024 * 1024
export const LARGEST_BODY = 16 * 1024

const Entry = z.object({ seq: z.number(), batch: z.custom<z.infer<typeof Batch>>() })

export const JournalReply = z.object({
  /** what follows on what the desk knows; not all of it when it is very much */
  entries: z.array(Entry),
  /** the newest number of the journal: what lies between the entries and it is to be asked for */
  head: z.number(),
  /** verdicts about single batches; what is neither here nor in `done` has to be sent again */
  refused: z.array(z.object({ id: Id, code: z.string(), what: z.string() })),
  /** batches of the request that are in the journal, new or known: a desk may have learnt of them before it had an answer */
  done: z.array(Id),
})

export const JournalQuery = z.strictObject({ after: z.coerce.number().pipe(Seq), ...Known })

/** Word of a change as it is sent to desks that listen: the newest number, and the entries when they are small. */
export const Word = z.object({ seq: z.number(), epoch: Epoch, entries: z.array(Entry).optional() })

export const VersionsQuery = z.strictObject({ drawing: Id })
/** The most versions of a drawing that are told at once; of more, they are thinned out evenly. */
export const MOST_VERSIONS = 240
/** Versions of a drawing, oldest first, each with the moment it was stored. */
export const VersionsReply = z.object({
  versions: z.array(
    z.object({ seq: z.number(), label: z.string(), at: z.iso.datetime(), drawing: z.custom<CoreDrawing>() }),
  ),
})

/** The most strokes asked for by name at a time. */
export const MOST_SAMPLE_IDS = 100

/** `?ids=a,b,c`: only these strokes; without it all of the shot's. */
/** What a stored thing is that is sent ahead of the batch that uses it. */
/** What a stored thing is that goes ahead of its batch; of a picture that was sent in pieces, what its film knows it by. */
export const AssetQuery = z.union([
  z.strictObject({ kind: z.literal('picture'), media: MediaId }),
  z.strictObject({
    kind: z.enum(Object.keys(ASSET_KINDS) as [AssetName, ...AssetName[]]),
    media: z.undefined().optional(),
  }),
])

/** What the media of the film know pictures of a shot by, by their own ids. */
export const PictureNames = z.object({ pictures: z.record(z.string(), MediaId) })

export const SamplesQuery = z.strictObject({
  ids: z
    .string()
    .transform(text => text.split(','))
    .pipe(z.array(Id).max(MOST_SAMPLE_IDS))
    .optional(),
})

export type Account = z.infer<typeof Account>
export type SessionState = z.infer<typeof SessionState>
export type MemberRole = z.infer<typeof MemberRole>
export type Member = z.infer<typeof Member>
export type Members = z.infer<typeof Members>
export type NewMember = z.infer<typeof NewMember>
export type AddedMember = z.infer<typeof AddedMember>
export type ShotCard = z.infer<typeof ShotCard>
export type FilmCard = z.infer<typeof FilmCard>
export type Shelf = z.infer<typeof Shelf>
export type Bin = z.infer<typeof Bin>
export type NewShot = z.infer<typeof NewShot>
export type OpenShot = z.infer<typeof OpenShot>
export type PostBatches = z.infer<typeof PostBatches>
export type Word = z.infer<typeof Word>
export type JournalReply = z.infer<typeof JournalReply>
export type VersionsReply = z.infer<typeof VersionsReply>
