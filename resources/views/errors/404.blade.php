<x-refusal title="Nothing is here">The address is wrong, or what it led to is not yours to see.</x-refusal>
