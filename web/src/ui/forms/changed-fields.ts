type Body = Readonly<Record<string, unknown>>

/**
 * Of the body of an update, the version and the fields that differ from what the form began with; null where none does. So a field that nobody touched
 * keeps its full precision, and what somebody else changed in it meanwhile.
 */
export function changedFields(body: Body, began: Body): Body | null {
  const changed = Object.entries(body).filter(([key, value]) => key !== 'version' && JSON.stringify(value) !== JSON.stringify(began[key]))
  return changed.length === 0 ? null : { ...Object.fromEntries(changed), version: body.version }
}
