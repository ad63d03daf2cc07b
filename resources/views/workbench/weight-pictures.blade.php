@use ('App\View\Marks')
@if ($pictures === [])
    <p class="weight-none">No material has a picture.</p>
@else
    <div class="weight-list" tabindex="0" role="group" aria-label="Pictures, and in how many pixels they are seen">
        <table>
            <thead>
                <tr>
                    <th scope="col">Picture of</th>
                    <th scope="col" class="number">Pixels</th>
                    <th scope="col" class="number">On the card</th>
                    <th scope="col" class="number">Seen in</th>
                    <th scope="col" class="number">Enough</th>
                    <th scope="col" class="number">Saves</th>
                </tr>
            </thead>
            <tbody>
                @foreach ($pictures as $one)
                    <tr>
                        <x-pick-link :key="'P'.$one['number']" :name="$one['name']" />
                        <td class="number">{{ $one['width'].' × '.$one['height'] }}</td>
                        <td class="number">{{ Marks::bytes($one['bytes']) }}</td>
                        <td class="number">{{ number_format($one['shown']).' px' }}</td>
                        <td class="number">{{ number_format($one['enough']).' px' }}</td>
                        <td class="number">{{ Marks::bytes($one['saves']) }}</td>
                    </tr>
                @endforeach
            </tbody>
        </table>
    </div>
@endif
