@php ($families = ['layers' => [], 'tags' => [], 'sets' => []])
@foreach ($command->going as $row)
    @php ($families[$row->family][] = $row)
@endforeach
<form class="ask" data-submit="post" data-address="{{ route('layers.clear', $bench->project) }}">
    <h2 id="dialog-title">Clear out what holds no objects</h2>
    @if ($command->going === [])
        <p>Every layer, tag and fixed set holds something.</p>
    @endif
    @foreach (array_filter($families) as $family => $rows)
        <label class="tick"
            ><input type="checkbox" name="{{ $family }}" value="1" checked /> {{ number_format(count($rows)) }}
            {{ ['layers' => 'layers', 'tags' => 'tags and folders of tags', 'sets' => 'sets and folders of sets'][$family] }}</label
        >
        <ul class="clear-list">
            @foreach (array_slice($rows, 0, 200) as $row)
                <li>{{ $row->inWords() }}</li>
            @endforeach
            @if (count($rows) > 200)
                <li>and {{ number_format(count($rows) - 200) }} more</li>
            @endif
        </ul>
    @endforeach
    @if ($command->going !== [])
        <p>Live sets stay, and so does what is locked or what somebody's new objects land in.</p>
    @endif
    <p class="error" role="alert" hidden></p>
    <p class="acts">
        @if ($command->going !== [])
            <button class="button danger">Clear out</button>
        @endif
        <button type="button" class="button" data-close>Close</button>
    </p>
</form>
