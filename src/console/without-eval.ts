import * as z from 'zod';

// The page's policy forbids code that is made from text, and Zod would try whether it may.
z.config({ jitless: true });
