// What the documentation of core has to say: every exported function has a doc block, and one that throws says so there.

const isFunction = node =>
  ['FunctionDeclaration', 'ArrowFunctionExpression', 'FunctionExpression'].includes(node?.type ?? '')

/** The functions that a statement exports, each with what carries its doc block. */
function exported(statement) {
  const { declaration } = statement
  if (isFunction(declaration)) return [{ name: declaration.id?.name ?? 'default', made: declaration }]
  if (declaration?.type !== 'VariableDeclaration') return []
  return declaration.declarations.flatMap(({ id, init }) => (isFunction(init) ? [{ name: id.name, made: init }] : []))
}

/** Whether a function throws itself: what functions inside it do when they are called is theirs. */
function throws(node) {
  if (!node || typeof node !== 'object') return false
  if (Array.isArray(node)) return node.some(throws)
  if (node.type === 'ThrowStatement') return true
  if (node.type === 'CallExpression' && /^need[A-Z]/.test(node.callee.name ?? '')) return true
  if (isFunction(node)) return false
  return Object.entries(node).some(([key, value]) => key !== 'parent' && throws(value))
}

export const docs = {
  rules: {
    exported: {
      meta: {
        type: 'suggestion',
        messages: {
          missing: '{{name}} is exported: say in a doc block what it computes, of what, in which units',
          throws: '{{name}} throws: say in its doc block when, and what (“Throws …”)',
        },
      },
      create: context => ({
        ExportNamedDeclaration(statement) {
          const { sourceCode } = context
          const comment = sourceCode.getCommentsBefore(statement).findLast(one => one.value.startsWith('*'))
          for (const { name, made } of exported(statement)) {
            if (!comment) context.report({ node: statement, messageId: 'missing', data: { name } })
            else if (throws(made.body) && !/\bthrows?\b/i.test(comment.value)) {
              context.report({ node: statement, messageId: 'throws', data: { name } })
            }
          }
        },
      }),
    },
  },
}
