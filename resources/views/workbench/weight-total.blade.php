@if ($history === [])
    <p class="weight-none">Nothing has been taken in.</p>
@else
    @php
        $most = max([1, ...array_column($history, 'triangles')]);
    @endphp
    <div class="weight-list" tabindex="0" role="group" aria-label="The total after each file">
        <table>
            <thead>
                <tr>
                    <th scope="col">After</th>
                    <th scope="col">When</th>
                    <th scope="col" class="number">Triangles at Full</th>
                    <th scope="col" class="wide"><span class="unseen">As a bar</span></th>
                </tr>
            </thead>
            <tbody>
                @foreach ($history as $one)
                    <tr>
                        <td class="text" title="{{ $one['what'] }}">{{ $one['what'] }}</td>
                        <td>{{ $one['at'] }}</td>
                        <td class="number">{{ number_format($one['triangles']) }}</td>
                        <td class="wide"
                            ><span class="weight"><i style="width: {{ round((100 * $one['triangles']) / $most, 1) }}%"></i></span
                        ></td>
                    </tr>
                @endforeach
            </tbody>
        </table>
    </div>
@endif
