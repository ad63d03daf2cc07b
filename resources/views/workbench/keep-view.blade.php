@use ('VineShelf\Views\Facet')
@php
    $desk = $bench->desk;
    $last = $desk->keeping['facets'] ?? null;
    $ticked = $last !== null ? array_fill_keys($last, true) + array_fill_keys(array_column(Facet::cases(), 'value'), false) : [
        'camera' => true,
        'rungs' => true,
        'isolation' => true,
        'section' => true,
        'tint' => ($desk->tint['by'] ?? 'own') !== 'own',
        'output' => false,
    ];
@endphp
<form class="ask" data-submit="post" data-address="{{ route('views.store', $bench->project) }}" data-picture data-camera>
    <h2 id="dialog-title">Keep this view</h2>
    <label for="view-name">Name</label>
    <input id="view-name" name="name" value="{{ $name }}" maxlength="120" autofocus />
    <fieldset>
        <legend>It keeps</legend>
        @foreach (Facet::cases() as $facet)
            <label class="tick"
                ><input type="checkbox" name="keep_{{ $facet->value }}" value="1" @checked ($ticked[$facet->value]) />
                {{ $facet->inWords() }}</label
            >
        @endforeach
        <p class="hint">What is not ticked, the view leaves alone when it is applied.</p>
    </fieldset>
    <div data-lowered>@include ('workbench.lowered')</div>
    @if ($bench->shelf()->folders !== [])
        <label for="view-folder">Folder</label>
        <select id="view-folder" name="folder">
            <option value="0">None</option>
            @foreach ($bench->shelf()->walk() as [$row])
                @if ($row instanceof VineShelf\Folders\Folder)
                    <option value="{{ $row->number }}">{{ $bench->shelf()->path($row) }}</option>
                @endif
            @endforeach
        </select>
    @endif
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Keep</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
