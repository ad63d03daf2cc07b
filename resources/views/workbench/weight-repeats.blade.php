@use ('App\View\Marks')
@if ($repeats === [])
    <p class="weight-none">Every mesh is stored once.</p>
@else
    @php ([$stored, $once] = $sharing)
    <div class="weight-says fine-says">
        <span>Meshes take {{ Marks::bytes($stored) }}; stored once each, they would take {{ Marks::bytes($once) }}.</span>
        <span class="gap"></span>
        @if ($mayChange)
            <button
                type="button"
                class="button"
                data-mesh-do="share"
                data-hashes="{{ implode(',', array_map(static fn (array $one): string => substr($one['key'], 1), $repeats)) }}"
                title="Each of them once, for everybody, as one change; what has other materials stays"
            >
                Share them
            </button>
        @endif
    </div>
    <div class="weight-list" tabindex="0" role="group" aria-label="Meshes that are stored several times">
        <table>
            <thead>
                <tr>
                    <th scope="col">Mesh</th>
                    <th scope="col" class="number">Stored</th>
                    <th scope="col" class="number">Triangles each</th>
                    <th scope="col" class="number">Sharing saves</th>
                    <th scope="col"><span class="unseen">What is done</span></th>
                </tr>
            </thead>
            <tbody>
                @foreach ($repeats as $one)
                    <tr>
                        <x-pick-link :key="$one['key']" :name="$one['name']" />
                        <td class="number">{{ number_format($one['times']).'×' }}</td>
                        <td class="number">{{ number_format($one['triangles']) }}</td>
                        <td class="number">{{ Marks::bytes($one['saves']) }}</td>
                        <td>
                            @if ($mayChange)
                                <button
                                    class="link"
                                    data-mesh-do="share"
                                    data-hashes="{{ substr($one['key'], 1) }}"
                                    aria-label="Share {{ $one['name'] }}"
                                >
                                    Share
                                </button>
                            @endif
                        </td>
                    </tr>
                @endforeach
            </tbody>
        </table>
    </div>
@endif
