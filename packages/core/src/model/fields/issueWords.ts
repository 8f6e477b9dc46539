import { z } from 'zod';

const listed = (values: readonly unknown[]): string =>
  values.length < 2 ? String(values[0]) : `${values.slice(0, -1).join(', ')} or ${String(values.at(-1))}`;

const kindsOfValue: Record<string, string> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object with named fields',
  record: 'an object with named fields',
  null: 'empty',
  undefined: 'left out',
};
const formats: Record<string, string> = {
  uuid: 'a row id (UUID)',
  email: 'an e-mail address',
  date: 'a date such as 2031-06-30',
  datetime: 'a moment such as 2031-06-30T12:00:00Z',
  url: 'a web address',
  json_string: 'JSON',
};
const units: Record<string, string> = {
  string: ' characters',
  array: ' entries',
  set: ' entries',
  map: ' entries',
};

/** What is wrong with a value, as the end of a sentence that begins with the field's name; no library speaks here. */
export function issueWords(issue: z.core.$ZodRawIssue): string {
  switch (issue.code) {
    case 'invalid_type':
      if (issue.input === undefined) return 'is missing';
      return `is not ${kindsOfValue[issue.expected] ?? issue.expected}`;
    case 'too_small':
    case 'too_big': {
      const most = issue.code === 'too_big';
      const limit = String(most ? issue.maximum : issue.minimum);
      const unit = units[issue.origin];
      if (unit === undefined) return `is ${most ? 'above' : 'below'} ${limit}`;
      if (!most && limit === '1') return 'is empty';
      return `has ${most ? 'more' : 'fewer'} than ${limit}${unit}`;
    }
    case 'invalid_format':
      return `is not ${formats[issue.format] ?? 'written as it must be'}`;
    case 'not_multiple_of':
      return `is not a multiple of ${String(issue.divisor)}`;
    case 'unrecognized_keys':
      return `has no field ${listed(issue.keys)}`;
    case 'invalid_value':
      return `is not ${listed(issue.values)}`;
    case 'invalid_union':
      return 'has none of the forms that it may have';
    case 'invalid_key':
    case 'invalid_element':
      return 'holds an entry that is not allowed';
    default:
      return 'is not allowed';
  }
}

// Every schema of ours says its own words where it has better ones; these stand for all others.
z.config({ customError: issueWords });
