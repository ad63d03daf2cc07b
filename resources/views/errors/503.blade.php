<x-refusal title="The database cannot be reached">Nothing that was answered is lost. Try again in a moment.</x-refusal>
