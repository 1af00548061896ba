"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import type { CSSProperties } from "react";
import css from "./masthead.module.css";
import { Wordmark } from "./Wordmark";

/** One tread of the flight: a place of the study. */
export interface Tread {
  name: string;
  href: string;
  count: string;
  current: boolean;
}

/** Wordmark, the study's name and the flight of treads, rising to the right in the order of the work. */
export function Masthead({ study, treads }: { study?: string; treads?: Tread[] }) {
  const router = useRouter();
  // a place is fetched when somebody makes for it: all of them at once would stand before the numbers
  const soon = (href: string) => ({ onPointerEnter: () => router.prefetch(href), onFocus: () => router.prefetch(href) });
  return (
    <header className={css.masthead}>
      <div className={css.mark}>
        <Link href="/" prefetch={false} {...soon("/")} aria-label="Beta Step: all studies">
          <Wordmark />
        </Link>
        {study && (
          <span className={css.study} title={study}>
            {study}
          </span>
        )}
      </div>
      {treads && (
        <nav aria-label="Places of the study" style={{ flex: 1, display: "flex" }}>
          <ol className={css.flight}>
            {treads.map((tread, i) => (
              <li key={tread.name} style={{ "--rise": i } as CSSProperties}>
                <Link
                  className={css.tread}
                  href={tread.href}
                  prefetch={false}
                  {...soon(tread.href)}
                  aria-current={tread.current ? "page" : undefined}
                >
                  <span className={css.inner}>
                    <span className={css.name}>{tread.name}</span>
                    <span className={css.count}>{tread.count}</span>
                  </span>
                </Link>
              </li>
            ))}
          </ol>
        </nav>
      )}
    </header>
  );
}
