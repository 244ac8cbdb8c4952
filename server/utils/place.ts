/** Where this server keeps what is its own: its database, or beside one elsewhere its copies and its password. */
export const dataDirectory = (): string => process.env.REDPOLL_DATA || '.data'
