@use ('App\View\Marks')
@php
    $row = $bench->scene()->row($object);
    $rungs = $why->rungCauses();
    $locks = $why->lockCauses();
@endphp
<form method="dialog" class="why" data-object="{{ $object }}" data-why="/why/{{ $object }}">
    <h2 id="dialog-title">{{ $text->sentence($row, $why) }}</h2>
    <p>{{ $text->second($why) }}</p>
    @if ($rungs !== [] || $locks !== [])
        <ul>
            @foreach ($rungs as $cause)
                <li>
                    {!! Marks::rung($cause->rung, $cause->rung) !!} <span>{{ rtrim(ucfirst($text->subject($cause)), ',') }}</span>
                    <em>{{ $cause->rung->label() }}</em>
                    <button
                        type="button"
                        class="link"
                        data-mend
                        data-what="{{ $cause->what }}"
                        data-number="{{ $cause->number }}"
                        data-part="rung"
                    >
                        {{ $cause->what === 'isolation' ? 'End the isolation' : 'Raise to Full' }}
                    </button>
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
        @if (count($rungs) + count($locks) > 1)
            <button type="button" class="button primary" data-mend data-what="all" @if (!$bench->mayChange()) data-part="rung" @endif>
                {{ $bench->mayChange() ? 'Mend all' : 'Raise all' }}
            </button>
        @endif
        <button class="button" value="close">Close</button>
    </p>
</form>
