'use client';
import type { ReactNode } from 'react';
import english from '@/messages/en/index.ts';
import { SpokenIn } from './spoken-in.tsx';

/** What is drawn within speaks English. */
export const English = ({ children }: { children: ReactNode }) => (
  <SpokenIn language="en" messages={english}>
    {children}
  </SpokenIn>
);
