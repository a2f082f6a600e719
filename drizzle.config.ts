export default { dialect: 'sqlite', schema: './server/db/schema.ts', out: './server/migrations' };
