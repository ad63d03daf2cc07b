<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Lighten\Fine;
use App\Models\Desk;
use App\Models\View as SavedView;
use App\Weighing\Lists;
use App\Weighing\Map;
use App\Weighing\Parts;
use App\Weighing\Pictures;
use App\Workbench\Answer;
use App\Workbench\PickMode;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Pick;

/** What weighs what: a map, lists beside it, and from each a pick. */
final class WeightController
{
    public const SHOWS = [
        'map' => 'Map',
        'heaviest' => 'Heaviest',
        'repeats' => 'Repeats',
        'pictures' => 'Pictures',
        'fine' => 'Too fine',
        'views' => 'Views',
        'total' => 'Total',
        'lighten' => 'Lighten',
    ];

    /** A part's key, see {@see Parts}; "" for the whole. */
    private const KEY = ['string', 'max:80', 'regex:~^([a-z]+:)?([LOMGP]\d{1,9}|H[0-9a-f]{1,40})?\+?$~D'];

    public function show(Request $request, Bench $bench): View
    {
        $given = $request->validate([
            'show' => ['nullable', 'in:'.implode(',', array_keys(self::SHOWS))],
            'by' => ['nullable', 'in:'.implode(',', array_keys(Parts::BY))],
            'size' => ['nullable', 'in:'.implode(',', array_keys(Map::SIZES))],
            'colour' => ['nullable', 'in:'.implode(',', array_keys(Map::COLOURS))],
            'inside' => ['nullable', ...self::KEY],
            'width' => ['nullable', 'integer', 'between:200,4000'],
            'height' => ['nullable', 'integer', 'between:80,3000'],
            'sort' => ['nullable', 'in:'.implode(',', array_keys(Lists::VIEW_COLUMNS))],
            'per' => ['nullable', 'in:'.implode(',', array_keys(Fine::BY))],
            'least' => ['nullable', 'numeric', 'between:0,1000000000'],
        ]);
        [$show, $by, $inside] = [$given['show'] ?? 'map', $given['by'] ?? 'layers', $given['inside'] ?? ''];
        [$size, $colour] = [$given['size'] ?? 'triangles', $given['colour'] ?? 'own'];
        [$width, $height] = [(int) ($given['width'] ?? 780), (int) ($given['height'] ?? 210)];
        $parts = new Parts($bench);
        $lists = new Lists($bench);
        $all = $bench->weights()->full(Bits::all($bench->scene()->count()));

        return view('workbench.weight', [
            'bench' => $bench,
            'show' => $show,
            'by' => $by,
            'inside' => $inside,
            'size' => $size,
            'colour' => $colour,
            'width' => $width,
            'height' => $height,
            'all' => $all,
            'mayChange' => $bench->mayChange(),
            'sharing' => $show === 'repeats' ? $lists->sharing() : [0, 0],
            'laid' => $show === 'map' ? (new Map($parts->inside($by, $inside), $size, $colour))->laid($width, $height) : [],
            'trail' => $show === 'map' ? $parts->trail($inside) : [],
            'heaviest' => $show === 'heaviest' ? $lists->heaviest() : [],
            'repeats' => $show === 'repeats' ? $lists->repeats() : [],
            'pictures' => $show === 'pictures' ? (new Pictures($bench))->all() : [],
            'sort' => $given['sort'] ?? 'triangles',
            'viewsWeighed' => $show === 'views' ? $lists->views($given['sort'] ?? 'triangles') : [],
            'history' => $show === 'total' ? $lists->history() : [],
            ...$show === 'lighten' ? self::lighten($bench) : [],
            ...$show === 'fine' ? self::fine($bench, $given) : [],
        ]);
    }

    /**
     * @param array<string, mixed> $given
     *
     * @return array<string, mixed> meshes that are too fine, and how that is counted
     */
    private static function fine(Bench $bench, array $given): array
    {
        $fine = new Fine($bench);
        $hasViews = $fine->hasViews();
        $by = $hasViews ? (string) ($given['per'] ?? 'pixel') : 'area';
        // A number of the other way to count says nothing.
        $least = isset($given['least']) && $by === ($given['per'] ?? '') ? (float) $given['least'] : Fine::BY[$by];

        return [
            'by' => $by,
            'least' => $least,
            'fine' => $fine->meshes($by, $least),
            'replaced' => $fine->replaced(),
            'hasViews' => $hasViews,
        ];
    }

    /** @return array<string, mixed> what a proposal is asked for with, and the last one */
    private static function lighten(Bench $bench): array
    {
        return [
            'lightening' => LightenController::last($bench),
            'now' => $bench->weights()->drawn(Bits::all($bench->scene()->count()), $bench->seen()->rungs()),
            'views' => array_values(array_filter($bench->shelf()->members, static fn (SavedView $view): bool => $view->camera !== null)),
            'picked' => $bench->pick()->count(),
        ];
    }

    /** Picks what a part stands for. */
    public function pick(Request $request, Bench $bench): Response
    {
        $mode = PickMode::in($request);
        $given = $request->validate(['key' => ['required', ...self::KEY]]);
        $numbers = $bench->scene()->numberBits((new Parts($bench))->rows((string) $given['key']));
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putPick($mode->of($desk->pick(), Pick::of(), $numbers)));

        return Answer::to($bench, $request)->send();
    }
}
