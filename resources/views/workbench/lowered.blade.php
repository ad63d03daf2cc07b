@use ('App\View\Marks')
{{-- What is lowered, each line with whether pictures take it over. --}}
@if ($lowered->lines !== [])
    <fieldset class="lowered">
        <legend>Lowered now, and whether pictures of the view take it over</legend>
        <ul>
            @foreach ($lowered->lines as $line)
                <li>
                    {!! Marks::rung($line->rung, $line->rung) !!}
                    <span class="label" title="{{ $line->what() }}"><em>{{ $line->rung->label() }}</em> {{ $line->what() }}</span>
                    <span class="either" role="radiogroup" aria-label="{{ $line->rung->label() }}: {{ $line->what() }}">
                        @foreach ([1 => 'meant', 0 => 'only to work'] as $value => $word)
                            <label
                                ><input
                                    type="radio"
                                    name="meant_{{ $line->id }}"
                                    value="{{ $value }}"
                                    @checked ($line->isMeant === (bool) $value)
                                /><span>{{ $word }}</span></label
                            >
                        @endforeach
                    </span>
                </li>
            @endforeach
        </ul>
    </fieldset>
@endif
