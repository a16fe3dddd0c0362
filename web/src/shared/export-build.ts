/** Lets the browser fetch the build as an archive of its build file and samples. */
export function exportBuild(buildId: string): void {
  const link = document.createElement('a')
  link.href = `/api/builds/${buildId}/file`
  link.download = ''
  link.click()
}
