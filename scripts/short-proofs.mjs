// Every property is tried for half a second at most: with thousands of faults planted, each is met by many of them.
import fc from 'fast-check'

fc.configureGlobal({ interruptAfterTimeLimit: 500 })
