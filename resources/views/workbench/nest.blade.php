<form class="ask" data-submit="post" data-address="{{ route('objects.nest', $bench->project) }}" data-means="move" data-keys="{{ $keys }}">
    <h2 id="dialog-title">Move {{ number_format($count) }} {{ $count === 1 ? 'object' : 'objects' }} into</h2>
    <input type="hidden" name="keys" value="{{ $keys }}" />
    <input type="search" data-narrow placeholder="Part of a group's name" aria-label="Find a group" autofocus />
    <div class="choices" role="radiogroup" aria-label="Group">
        <label data-text="no group the top"
            ><input type="radio" name="into" value="0" @checked ($groups === []) /> <span class="label">No group: the top</span></label
        >
        @foreach ($groups as [$number, $name, $in])
            <label data-text="{{ mb_strtolower($name.' '.$in) }}"
                ><input type="radio" name="into" value="{{ $number }}" @checked ($loop->first) />
                <span class="label" title="{{ $name }}">{{ $name }}</span>
                @if ($in !== '') <span class="aside">in {{ $in }}</span> @endif</label
            >
        @endforeach
    </div>
    <p class="hint">They stay where they are in the world: places are kept with each object, to the last digit.</p>
    <p class="means" data-means-says role="status"></p>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Move</button> <button type="button" class="button" data-close>Leave it</button></p>
</form>
