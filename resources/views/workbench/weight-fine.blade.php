@use ('App\View\Marks')
@php
    $ready = array_column(array_filter($fine, static fn (array $one): bool => $one['coarse'] !== null), 'mesh');
    $saves = array_sum(array_column($fine, 'saves'));
    $length = static fn (float $metres): string => $metres >= 0.1
        ? number_format($metres, 2).' m'
        : number_format(1000 * $metres, 1).' mm';
    $seen = static fn (array $one): string => match (true) {
        $by === 'area' => number_format($one['area'], 2).' m²',
        $one['pixels'] < 1 => 'no view',
        default => number_format($one['pixels']).' px',
    };
    $per = static fn (float $value): string => number_format($value, $value >= 100 ? 0 : ($value >= 10 ? 1 : 2));
@endphp
<div class="weight-says fine-says">
    <span>More than</span>
    <input
        id="fine-least"
        type="number"
        min="0"
        max="1000000000"
        step="any"
        value="{{ $least }}"
        data-fine="least"
        aria-label="Triangles"
    />
    <label for="fine-by">triangles for each</label>
    <select id="fine-by" data-fine="by">
        @if ($hasViews)
            <option value="pixel" @selected ($by === 'pixel')>pixel, where a view comes nearest</option>
        @endif
        <option value="area" @selected ($by === 'area')>m² of the box around it</option>
    </select>
    <span class="gap"></span>
    @if ($ready !== [] && $mayChange)
        <button
            type="button"
            class="button"
            data-mesh-do="coarser"
            data-meshes="{{ implode(',', $ready) }}"
            title="For everybody and at every rung, as one change"
        >
            Coarser for all {{ count($ready) }}: saves {{ Marks::short($saves) }}
        </button>
    @endif
</div>
@if ($fine === [] && $replaced === [])
    <p class="weight-none">No mesh is finer than that.</p>
@else
    <div class="weight-list" tabindex="0" role="group" aria-label="Meshes that are too fine for what they show">
        <table>
            <thead>
                <tr>
                    <th scope="col">Mesh</th>
                    <th scope="col" class="number">Objects</th>
                    <th scope="col" class="number">Triangles</th>
                    <th scope="col" class="number">{{ $by === 'pixel' ? 'Seen in' : 'Box' }}</th>
                    <th scope="col" class="number">{{ $by === 'pixel' ? 'Per pixel' : 'Per m²' }}</th>
                    <th scope="col" class="number">Coarser</th>
                    <th scope="col" class="number">Off by</th>
                    <th scope="col" class="number">Saves</th>
                    <th scope="col"><span class="unseen">What is done</span></th>
                </tr>
            </thead>
            <tbody>
                @foreach ($fine as $one)
                    <tr>
                        <x-pick-link :key="'G'.$one['mesh']" :name="$one['name']" />
                        <td class="number">{{ number_format($one['objects']) }}</td>
                        <td class="number">{{ number_format($one['triangles']) }}</td>
                        <td class="number">
                            {{ $seen($one) }}
                        </td>
                        <td class="number">{{ $per($one['per']) }}</td>
                        <td class="number">{{ $one['coarse'] === null ? '·' : number_format($one['coarse']) }}</td>
                        <td class="number">{{ $one['coarse'] === null ? '·' : $length($one['off']) }}</td>
                        <td class="number">{{ $one['saves'] === 0 ? '·' : number_format($one['saves']) }}</td>
                        <td>
                            @if ($one['coarse'] !== null && $mayChange)
                                <button
                                    class="link"
                                    data-mesh-do="coarser"
                                    data-meshes="{{ $one['mesh'] }}"
                                    aria-label="Put the coarser version in place of {{ $one['name'] }}"
                                >
                                    Coarser
                                </button>
                            @endif
                        </td>
                    </tr>
                @endforeach
                @foreach ($replaced as $one)
                    <tr>
                        <x-pick-link :key="'G'.$one['mesh']" :name="$one['name']" />
                        <td class="number">{{ number_format($one['objects']) }}</td>
                        <td class="number">{{ number_format($one['triangles']) }}</td>
                        <td colspan="5">coarser on purpose, was {{ number_format($one['was']) }}</td>
                        <td>
                            @if ($mayChange)
                                <button
                                    class="link"
                                    data-mesh-do="finer"
                                    data-meshes="{{ $one['mesh'] }}"
                                    aria-label="Put {{ $one['name'] }} back as it came"
                                >
                                    As it came
                                </button>
                            @endif
                        </td>
                    </tr>
                @endforeach
            </tbody>
        </table>
    </div>
@endif
