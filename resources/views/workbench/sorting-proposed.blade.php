<form class="ask sorting-proposed" data-submit="post" data-address="{{ route('sorting-rules.read', $bench->project) }}">
    <h2 id="dialog-title">Rules that explain how the model is filed</h2>
    <textarea name="list" hidden aria-hidden="true">{{ $list->write() }}</textarea>
    <input type="hidden" name="chosen" value="1" />
    @if ($repeating !== [])
        <p class="aside">
            @if ($withRepeating)
                With {{ implode(', ', array_map(static fn (string $name): string => "“{$name}”", $repeating)) }}, which says what the layers
                are called: that helps with the next version of the file, hardly with another.
                <button type="button" class="link" data-open="/sorting-rules/proposed">Without</button>
            @else
                Without {{ implode(', ', array_map(static fn (string $name): string => "“{$name}”", $repeating)) }} of the file, which only
                says what the layers are called.
                <button type="button" class="link" data-open="/sorting-rules/proposed?repeating=1">With it</button>
            @endif
        </p>
    @endif
    @if ($lines === [])
        <p>
            {{ $filed === 0
                ? 'Everything is in Unsorted. File some objects by hand, and rules can be read off that.'
                : 'Class, material, properties and names do not explain how the model is filed.' }}
        </p>
        <p class="acts"><button type="button" class="button" data-close autofocus>Close</button></p>
    @else
        <p>
            {{ count($lines) === 1 ? 'One rule explains' : count($lines) . ' rules explain' }} where {{ number_format($explained) }} of
            {{ number_format($filed) }} filed objects are. Those that are ticked come below the rules that there are; nothing is sorted yet.
        </p>
        <div class="choices weight-list screen-list" tabindex="0" role="group" aria-label="Rules">
            <table>
                <thead>
                    <tr>
                        <th scope="col"><span class="unseen">Take it</span></th>
                        <th scope="col">Objects that fit</th>
                        <th scope="col">go under</th>
                        <th scope="col" class="number" title="Objects that are there already">Explains</th>
                        <th scope="col" class="number" title="Objects under other layers that it would move">Exceptions</th>
                        <th scope="col" class="number" title="Objects that it would take out of Unsorted">Unsorted</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($lines as $at => $line)
                        @php ($layer = implode(' / ', $list->lines[$at]->layer))
                        <tr>
                            <td>
                                <input type="checkbox" name="line-{{ $at }}" value="1" checked aria-label="Take {{ $line->rule }}" />
                            </td>
                            <td class="sorting-rule">
                                <code title="{{ $line->rule }}">{{ $line->rule }}</code>
                                @if (! $line->only) <span class="aside">and what they hold</span> @endif
                            </td>
                            <td class="sorting-rule" title="{{ $layer }}">{{ $layer }}</td>
                            <td class="number">{{ number_format($line->explained) }}</td>
                            <td class="number">{{ number_format($line->otherwise) }}</td>
                            <td class="number">{{ number_format($line->unsorted) }}</td>
                        </tr>
                    @endforeach
                </tbody>
            </table>
        </div>
        <p class="error" role="alert" hidden></p>
        <p class="acts">
            <button class="button primary" autofocus>Take them</button> <button type="button" class="button" data-close>Cancel</button>
        </p>
    @endif
</form>
