// The product’s own would otherwise be found, and begin its work.
export function register() {}
