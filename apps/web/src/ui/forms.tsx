import { useId, type ComponentProps } from 'react';
import { z } from 'zod';
import { MIN_PASSWORD } from '@quarry/protocol/accounts';

// Fields of forms that are sent as a whole, with the reason under the one that is not right.

export const passwordText = z
  .string()
  .min(MIN_PASSWORD, `A password has at least ${MIN_PASSWORD} characters.`);
/** What a new account asks. */
export const NEW_ACCOUNT = {
  name: z.string().trim().min(1, 'Type your name.').max(80, 'A name has at most 80 characters.'),
  login: z
    .string()
    .trim()
    .toLowerCase()
    .regex(
      /^[a-z0-9._-]{2,40}$/,
      'A sign-in name has 2 to 40 letters, digits, dots, hyphens or underscores.',
    ),
  password: passwordText,
};

export function TextInput({
  label,
  error,
  ...input
}: Omit<ComponentProps<'input'>, 'id' | 'className'> & {
  label: string;
  error?: { message?: string } | undefined;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block pb-0.5">
        {label}
      </label>
      <input
        {...input}
        id={id}
        className="input input-sm w-full"
        aria-invalid={error !== undefined}
        aria-describedby={error ? `${id}-error` : undefined}
      />
      {error && (
        <span role="alert" id={`${id}-error`} className="block text-error text-xs pt-0.5">
          {error.message}
        </span>
      )}
    </div>
  );
}

/** Why the last act did not work, under it. */
export const Trouble = ({ error }: { error: Error | null | undefined }) =>
  error ? (
    <p role="alert" className="text-error py-1">
      {error.message}
    </p>
  ) : null;
