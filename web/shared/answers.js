// An answer is shown in what stands where it belongs when it comes: what stood there when it was asked for may have
// been drawn anew by an earlier one, and htmx shows nothing then.
document.addEventListener('htmx:before:response', (e) => {
  const { ctx } = /** @type {CustomEvent} */ (e).detail;
  if (ctx.target?.isConnected !== false || !ctx.target.id) return;
  ctx.target = document.getElementById(ctx.target.id) ?? ctx.target;
});
