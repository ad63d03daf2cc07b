@use ('App\View\Marks')
@use ('VineShelf\Locks\Lock')
@use ('VineShelf\Rungs\Rung')
<form method="dialog" class="why here">
    <h2 id="dialog-title">
        {{ $here->title() }}
    </h2>
    @if ($here->count > 0)
        <p>
            @if ($here->unseen + $here->held === 0)
                All of them are shown and open; some may stand behind others.
            @else
                {{ number_format($here->unseen) }} hidden, {{ number_format($here->held) }} guarded or locked.
            @endif
        </p>
        <ul>
            @foreach ($here->objects as [$number, $name, $layer, $why, $sentence])
                <li>
                    {!! Marks::rung($why->own, $why->rung) !!} {!! Marks::lock($why->lock) !!}
                    <span class="here-what"
                        ><strong title="{{ $name }}">{{ $name }}</strong> <small>{{ $layer }}</small>
                        @if ($sentence !== '')
                            <br /><small>{{ $sentence }}</small>
                        @endif
                    </span>
                    @if ($why->causes !== [])
                        <button type="button" class="link" data-here-why="{{ $number }}">Why</button>
                        @if ($bench->mayChange() || $why->rungCauses() !== [])
                            <button type="button" class="link" data-here-mend="{{ $number }}">Mend</button>
                        @endif
                    @endif
                    <button type="button" class="link" data-here-pick="{{ $number }}">Pick</button>
                </li>
            @endforeach
        </ul>
        @if ($here->count > count($here->objects))
            <p>and {{ number_format($here->count - count($here->objects)) }} more; ask for a smaller region to see them.</p>
        @endif
    @endif
    <p class="acts"><button class="button" value="close">Close</button></p>
</form>
