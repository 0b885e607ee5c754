export { createApp } from './app.ts';
export { connectDatabase } from './database/connect.ts';
export { startPrivateDatabase, type PrivateDatabase } from './database/private-mariadb.ts';
export { loadDemoOnce } from './demo.ts';
