"use client";

import { createContext } from "react";

/** The nonce of the page's content security policy, for whatever puts styles into the page later. */
export const Nonce = createContext<string | undefined>(undefined);
