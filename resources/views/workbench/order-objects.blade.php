<form class="ask" data-submit="post" data-address="{{ route('objects.order', $bench->project) }}">
    <h2 id="dialog-title">{{ $command->name() }}</h2>
    <input type="hidden" name="keys" value="{{ $keys }}" />
    @if ($keys === '') <input type="hidden" name="top" value="1" /> @endif
    @if ($command->groups === 0)
        <p>What stands in it is in the order of its names already.</p>
        <p class="acts"><button type="button" class="button" data-close autofocus>Close</button></p>
    @else
        @if ($command->fromFile > 0)
            <p class="warns">
                {{ $command->fromFile === 1 ? 'One of them has' : number_format($command->fromFile).' of them have' }}
                the order of the file, which may mean something: the order in which it was built, or numbers on a plan. The next version of
                the file is matched by names and occurrences; undo brings the order back.
            </p>
        @endif
        <p class="acts">
            <button class="button primary" autofocus>Sort by name</button> <button type="button" class="button" data-close>Leave it</button>
        </p>
    @endif
</form>
