@php
    $rows = array_map(
        fn ($layer) => [
            'number' => $layer->number,
            'colour' => $layer->colour,
            'path' => $bench->layers()->path($layer->number),
            'objects' => $bench->contents()->objects($layer->number),
            'differs' => [],
        ],
        $layers,
    );
    $title = 'Merge ' . count($layers) . ' layers into';
@endphp
<x-merge :address="route('layers.merge', $bench->project)" :title="$title" stays="The layer that stays" act="Merge" letter="L" :rows="$rows"
    >The others go. What is filed under them, and the layers in them, move into the one that stays.</x-merge
>
