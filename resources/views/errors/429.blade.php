<x-refusal title="Too many requests">Wait a minute, then try again.</x-refusal>
