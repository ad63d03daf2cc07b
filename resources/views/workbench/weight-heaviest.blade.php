@use ('App\View\Marks')
@if ($heaviest === [])
    <p class="weight-none">Nothing draws anything.</p>
@else
    <div class="weight-list" tabindex="0" role="group" aria-label="The heaviest objects">
        <table>
            <thead>
                <tr>
                    <th scope="col">Object</th>
                    <th scope="col">Layer</th>
                    <th scope="col" class="number">Triangles</th>
                    <th scope="col" class="number">Drawn</th>
                    <th scope="col" class="number">Bytes</th>
                </tr>
            </thead>
            <tbody>
                @foreach ($heaviest as $one)
                    <tr>
                        <x-pick-link :key="$one['key']" :name="$one['name']" />
                        <td class="text" title="{{ $one['layer'] }}">{{ $one['layer'] }}</td>
                        <td class="number">{{ number_format($one['triangles']) }}</td>
                        <td class="number">{{ number_format($one['times']).'×' }}</td>
                        <td class="number">{{ Marks::bytes($one['bytes']) }}</td>
                    </tr>
                @endforeach
            </tbody>
        </table>
    </div>
@endif
