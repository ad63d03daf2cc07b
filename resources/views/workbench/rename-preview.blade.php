<p>
    @if ($command->after === [])
        Every name stays as it is.
    @else
        {{ number_format(count($command->after)) }} of {{ number_format($picked) }} {{ count($command->after) === 1 ? 'gets' : 'get' }}
        another name.
    @endif
    @if ($command->clashes !== [])
        <strong class="warn">
            @php ($called = $command instanceof App\Changes\RenameRows ? 'row' : 'object')
            {{ number_format(count($command->clashes)) }} would be called like another {{ $called }} beside
            {{ count($command->clashes) === 1 ? 'it' : 'them' }}.
        </strong>
    @endif
    {{ $command->leftAlone }}
</p>
@if ($command->after !== [])
    <div class="preview-rows">
        <table>
            <thead>
                <tr>
                    <th scope="col">Now</th>
                    <th scope="col">Then</th>
                </tr>
            </thead>
            <tbody>
                @foreach (array_slice($command->after, 0, 60, true) as $number => $name)
                    <tr @if (isset($command->clashes[$number])) class="clash" @endif>
                        <td title="{{ $command->before[$number] }}">
                            {{ $command->before[$number] === '' ? 'unnamed' : $command->before[$number] }}
                        </td>
                        <td title="{{ $name }}">
                            {{ $name === '' ? 'unnamed' : $name }}
                            @if (isset($command->clashes[$number]))
                                <small>clash</small>
                            @endif
                        </td>
                    </tr>
                @endforeach
            </tbody>
        </table>
    </div>
    @if (count($command->after) > 60)
        <p>and {{ number_format(count($command->after) - 60) }} more</p>
    @endif
@endif
