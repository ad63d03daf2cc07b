@use ('App\View\Marks')
@php
    $row = $bench->scene()->row($object);
    $rungs = $why->rungCauses();
    $locks = $side->isOutput ? [] : $why->lockCauses();
@endphp
<form method="dialog" class="why" data-object="{{ $object }}" data-why="/why/{{ $object }}" data-side="{{ $side->name() }}">
    <h2 id="dialog-title">{{ $text->sentence($row, $why) }}</h2>
    <p>{{ $text->second($why) }}</p>
    @if ($bench->cutting()->gone()->has($row))
        <p>
            The section cuts it away.
            <button type="button" class="link" data-command="section-turn" data-close>Turn the section off</button>
        </p>
    @endif
    @if ($bench->scene()->kind($row) === VineShelf\Scene\Kind::Light)
        <p class="hint">{{ $text->light($side->isOutput) }}</p>
    @endif
    @if ($rungs !== [] || $locks !== [])
        <ul>
            @foreach ($rungs as $cause)
                <li>
                    {!! Marks::rung($cause->rung, $cause->rung) !!} <span>{{ rtrim(ucfirst($text->subject($cause)), ',') }}</span>
                    <em>{{ $cause->rung->label() }}</em>
                    @if ($side->isOutput)
                        @include ('workbench.mend-pictures', ['holder' => $cause])
                    @else
                        <button
                            type="button"
                            class="link"
                            data-mend
                            data-what="{{ $cause->what }}"
                            data-number="{{ $cause->number }}"
                            data-part="rung"
                        >
                            {{ $text->mend($cause) }}
                        </button>
                    @endif
                </li>
            @endforeach
            @foreach ($locks as $cause)
                <li>
                    {!! Marks::lock($cause->lock) !!} <span>{{ rtrim(ucfirst($text->subject($cause)), ',') }}</span>
                    <em>{{ $cause->lock->label() }}</em>
                    @if ($bench->mayChange())
                        <button
                            type="button"
                            class="link"
                            data-mend
                            data-what="{{ $cause->what }}"
                            data-number="{{ $cause->number }}"
                            data-part="lock"
                        >
                            Open it
                        </button>
                    @endif
                </li>
            @endforeach
        </ul>
    @endif
    <p class="acts">
        @if (count($rungs) + count($locks) > 1 && (! $side->isOutput || $bench->mayChange()))
            <button
                type="button"
                class="button primary"
                data-mend
                data-what="all"
                @if ($side->isOutput || !$bench->mayChange()) data-part="rung" @endif
            >
                {{ $bench->mayChange() && !$side->isOutput ? 'Mend all' : 'Raise all' }}
            </button>
        @endif
        <button class="button" value="close">Close</button> @include ('workbench.why-sides')
    </p>
</form>
