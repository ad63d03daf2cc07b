@use ('VineShelf\Layers\GroupBy')
<form class="ask" data-submit="post" data-address="{{ route('layers.several', $bench->project) }}">
    <h2 id="dialog-title">New layers from {{ number_format($count) }} picked</h2>
    <div class="choices" role="radiogroup" aria-label="What the layers are made by">
        @foreach (GroupBy::cases() as $by)
            <label style="--level: 0"
                ><input type="radio" name="by" value="{{ $by->value }}" @checked ($loop->first) @if ($loop->first) autofocus @endif />
                {{ ucfirst($by->label()) }}</label
            >
        @endforeach
    </div>
    @if ($parent > 1 && $bench->layers()->has($parent))
        <label class="tick"
            ><input type="checkbox" name="parent" value="{{ $parent }}" checked /> inside {{ $bench->layers()->get($parent)->name }}</label
        >
    @endif
    <p>What the picked groups hold goes along. A layer that is there already is used again.</p>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Create</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
