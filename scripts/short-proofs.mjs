// Every property is tried for a third of a second at most: with thousands of faults planted, each is met by many of them.
import fc from 'fast-check'

fc.configureGlobal({ interruptAfterTimeLimit: 300 })
