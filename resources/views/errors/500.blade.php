<x-refusal title="Something went wrong on our side">It was logged. Nothing that was answered is lost.</x-refusal>
