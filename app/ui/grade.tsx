import { chakra, HStack, type StackProps } from '@chakra-ui/react'
import type { Grade } from '../../core/checks/finding'
import { gradeWords } from '../../core/checks/sentences'

/** An open doorway, a half-open door, a shut one; a note is a plate on the wall. */
export function DoorGlyph({ grade, size = 18 }: { grade: Grade; size?: number }) {
  return (
    <chakra.svg
      viewBox="0 0 20 20"
      width={`${size}px`}
      height={`${size}px`}
      color={grade}
      aria-hidden="true"
      flex="none"
      fill="none"
      stroke="currentColor"
      strokeWidth="2"
    >
      {grade === 'note' ? (
        <path d="M4 5.5h12v9H4zM7 8.5h6M7 11.5h4" strokeLinejoin="round" />
      ) : (
        <>
          <path d="M3 18V2.5h14V18" strokeLinejoin="round" />
          {grade === 'clear' && <path d="M1 18h18" strokeDasharray="2 2" />}
          {grade === 'tight' && (
            <path d="M3 2.5l7 3.5v13L3 18z" fill="currentColor" fillOpacity="0.35" strokeLinejoin="round" />
          )}
          {grade === 'blocked' && (
            <>
              <path d="M3 2.5h14V18H3z" fill="currentColor" fillOpacity="0.85" />
              <circle cx="13.5" cy="11" r="1.2" fill="white" stroke="none" />
            </>
          )}
        </>
      )}
    </chakra.svg>
  )
}

/** A grade told three ways: word, colour and door. */
export function GradeMark({ grade, size = 'sm', ...rest }: { grade: Grade; size?: 'sm' | 'lg' } & StackProps) {
  return (
    <HStack
      as="span"
      display="inline-flex"
      gap="1.5"
      px={size === 'lg' ? '3' : '2'}
      py={size === 'lg' ? '1.5' : '0.5'}
      borderRadius="2px"
      borderLeft="4px solid"
      borderColor={grade}
      bg={`${grade}Floor`}
      color={grade}
      fontWeight="700"
      fontSize={size === 'lg' ? 'lg' : 'sm'}
      whiteSpace="nowrap"
      {...rest}
    >
      <DoorGlyph grade={grade} size={size === 'lg' ? 22 : 16} />
      {gradeWords[grade]}
    </HStack>
  )
}
