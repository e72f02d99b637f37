// @ts-check
export default { poweredByHeader: false };
