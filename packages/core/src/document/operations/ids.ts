/** An id made by a desk: letters, digits, - and _, never starting with one of the last two; so none that objects inherit. */
export const ID_FORM = /^[A-Za-z0-9][A-Za-z0-9_-]{0,39}$/

/** Whether a text may be an id: of that form, and not the name of something every object has. */
export const isId = (id: string): boolean => ID_FORM.test(id) && !(id in Object.prototype)
