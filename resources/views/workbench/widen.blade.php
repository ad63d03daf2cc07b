<form method="dialog" class="ask widen" data-widen>
    <h2 id="dialog-title">Tags and sets as columns</h2>
    <input type="search" data-narrow placeholder="Part of a name" aria-label="Find a tag or a set" autofocus />
    <div class="choices" role="group" aria-label="Tags and sets">
        @foreach ($bench->tags()->all() as $tag)
            <label data-text="{{ mb_strtolower($bench->tags()->tree->path($tag)) }}" style="--level: 0"
                ><input type="checkbox" value="T{{ $tag->number }}" @checked (in_array("T$tag->number", $over, true)) /><span
                    class="swatch kind-tag"
                    style="--swatch: {{ $tag->colour }}"
                ></span>
                <span class="label">{{ $bench->tags()->tree->path($tag) }}</span></label
            >
        @endforeach
        @foreach ($bench->sets()->all() as $set)
            <label data-text="{{ mb_strtolower($bench->sets()->tree->path($set)) }}" style="--level: 0"
                ><input type="checkbox" value="E{{ $set->number }}" @checked (in_array("E$set->number", $over, true)) />
                {!! App\View\Icon::svg($set->isLive() ? 'zap' : 'list-checks') !!}
                <span class="label">{{ $bench->sets()->tree->path($set) }}</span></label
            >
        @endforeach
    </div>
    <p class="acts">
        <button type="button" class="button primary" data-keep-wide>Show these</button>
        <button type="button" class="button" data-all-wide>All tags</button>
        @if ($over !== [])
            <button type="button" class="button" data-end-wide>None</button>
        @endif
        <button type="button" class="button" data-close>Leave it</button>
    </p>
</form>
