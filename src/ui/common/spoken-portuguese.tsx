'use client';
import type { ReactNode } from 'react';
import portuguese from '@/messages/pt/index.ts';
import { SpokenIn } from './spoken-in.tsx';

/** What is drawn within speaks Portuguese. */
export const Portuguese = ({ children }: { children: ReactNode }) => (
  <SpokenIn language="pt" messages={portuguese}>
    {children}
  </SpokenIn>
);
