<x-refusal title="The page was open too long">Load it again and repeat what you did; nothing was changed.</x-refusal>
