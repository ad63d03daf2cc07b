<x-refusal title="You may not do that">Ask the project's owner to let you change it.</x-refusal>
