@use ('App\View\Marks')
@use ('App\Weighing\Lists')
@if ($viewsWeighed === [])
    <p class="weight-none">No views yet.</p>
@else
    <div class="weight-list" tabindex="0" role="group" aria-label="What each view draws">
        <table>
            <thead>
                <tr>
                    @foreach (Lists::VIEW_COLUMNS as $id => $label)
                        <th
                            scope="col"
                            class="@if ($id !== 'name') number @endif"
                            aria-sort="{{ $sort !== $id ? 'none' : ($id === 'name' ? 'ascending' : 'descending') }}"
                        >
                            <button class="link" data-weight="sort" data-value="{{ $id }}">{{ $label }}</button>
                        </th>
                    @endforeach
                </tr>
            </thead>
            <tbody>
                @foreach ($viewsWeighed as $one)
                    <tr>
                        <td>
                            <button class="link" data-weight="apply" data-value="{{ $one['no'] }}" title="Apply {{ $one['name'] }}">
                                {{ $one['name'] }}
                            </button>
                        </td>
                        <td class="number">{{ number_format($one['weight']->triangles) }}</td>
                        <td class="number">{{ number_format($one['weight']->vertices) }}</td>
                        <td class="number">{{ number_format($one['weight']->calls) }}</td>
                        <td class="number">{{ Marks::bytes($one['weight']->geometry) }}</td>
                        <td class="number">{{ Marks::bytes($one['weight']->textures) }}</td>
                        <td class="number">{{ number_format($one['pictures']) }}</td>
                    </tr>
                @endforeach
            </tbody>
        </table>
    </div>
@endif
