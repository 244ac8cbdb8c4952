/** Where boards on the bench network send to; null where only this computer can. */
export const benchAddress: { value: string | null } = { value: null }
