@use ('App\View\Marks')
@if ($repeats === [])
    <p class="weight-none">Every mesh is stored once.</p>
@else
    @php ([$stored, $once] = $sharing)
    <p class="weight-says">
        Meshes take {{ Marks::bytes($stored) }}; stored once each, they would take {{ Marks::bytes($once) }}.
    </p>
    <div class="weight-list" tabindex="0" role="group" aria-label="Meshes that are stored several times">
        <table>
            <thead>
                <tr>
                    <th scope="col">Mesh</th>
                    <th scope="col" class="number">Stored</th>
                    <th scope="col" class="number">Triangles each</th>
                    <th scope="col" class="number">Sharing saves</th>
                </tr>
            </thead>
            <tbody>
                @foreach ($repeats as $one)
                    <tr>
                        <td>
                            <button class="link" data-weight="pick" data-value="{{ $one['key'] }}" title="Pick {{ $one['name'] }}">
                                {{ $one['name'] }}
                            </button>
                        </td>
                        <td class="number">{{ number_format($one['times']).'×' }}</td>
                        <td class="number">{{ number_format($one['triangles']) }}</td>
                        <td class="number">{{ Marks::bytes($one['saves']) }}</td>
                    </tr>
                @endforeach
            </tbody>
        </table>
    </div>
@endif
