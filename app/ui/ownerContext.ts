import { createContext, use, type Context } from "react";

/**
 * Creates the context of an owner of state, and the hook that returns the owner. The hook throws outside the
 * context; `what` names the owner in the message.
 */
export function createOwnerContext<T>(what: string): readonly [Context<T | undefined>, () => T] {
  const OwnerContext = createContext<T | undefined>(undefined);
  function useOwner(): T {
    const owner = use(OwnerContext);
    if (owner === undefined) throw new Error(`${what} is used outside of Provide`);
    return owner;
  }
  return [OwnerContext, useOwner];
}
