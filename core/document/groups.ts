// groups.ts — layers that are placed, turned and hidden together, and where single ones stand. Nothing can be set yet.
import { z } from 'zod';

export const GroupsSchema = z.array(z.strictObject({})).max(0);

export const PlacementSchema = z.strictObject({});
