@php
    $rows = array_map(
        fn ($tag) => [
            'number' => $tag->number,
            'colour' => $tag->colour,
            'path' => $bench->tags()->tree->path($tag),
            'objects' => $bench->scene()->tagged($tag->number)->count(),
            'differs' => $differences[$tag->number],
        ],
        $tags,
    );
    $title = 'Make one of ' . count($tags) . ' tags';
@endphp
<x-merge :address="route('tags.merge', $bench->project)" :title="$title" stays="The tag that stays" act="Make one" letter="T" :rows="$rows"
    >The one that stays keeps its colour, rungs, lock and note; the objects of the others get it, and rules that name them name it.</x-merge
>
