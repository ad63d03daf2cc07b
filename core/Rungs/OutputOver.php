<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Output\Output;
use VineShelf\Scene\Bits;

/** Output settings laid over the rungs that a view keeps. */
final class OutputOver
{
    /**
     * The own rungs of a picture, as {@see OutputSettings::over()} says.
     *
     * @param OutputSettings $is  those of the project
     * @param OutputSettings $own those of the view
     */
    public static function of(OutputSettings $is, Settings $view, Settings $desk, OutputSettings $own): Settings
    {
        $layers = self::said($is->layers, $own->layers);
        $following = array_filter($layers, static fn (int $value): bool => $value === Output::AsOnDesk->value);
        $settings = new Settings(
            self::rungs($layers, $desk->layers) + $view->layers,
            $view->objects,
            self::rungs(self::said($is->tags, $own->tags), $desk->tags) + $view->tags,
            self::rungs(self::said($is->folders, $own->folders), $desk->folders) + $view->folders,
            layersAlone: $own->layersAlone +
                array_diff_key($view->layersAlone, $layers) +
                array_intersect_key($desk->layersAlone, $following),
            objectsAlone: $view->objectsAlone,
        );
        $settings = self::withAll(self::withAll($settings, $is->objects, $desk), $own->objects, $desk);
        foreach ($own->objectsAlone as $rung => $numbers) {
            $settings = $settings->withObjectsAlone($numbers, Rung::from($rung));
        }

        return self::withAll($settings, $is->never()->objects, $desk);
    }

    /**
     * What counts by number: what the view says before what the project does, and before both what is never in pictures.
     *
     * @param array<int, int> $project
     * @param array<int, int> $own those of the view
     *
     * @return array<int, int>
     */
    public static function said(array $project, array $own): array
    {
        return array_filter($project, static fn (int $value): bool => $value === Output::Never->value) + $own + $project;
    }

    /** @param array<int, Bits> $objects by value */
    private static function withAll(Settings $settings, array $objects, Settings $desk): Settings
    {
        foreach ($objects as $value => $numbers) {
            $settings = self::withObjects($settings, Output::from($value), $numbers, $desk);
        }

        return $settings;
    }

    /**
     * @param array<int, int> $said values of {@see Output}
     * @param array<int, int> $desk
     *
     * @return array<int, int> rungs
     */
    private static function rungs(array $said, array $desk): array
    {
        $rungs = [];
        foreach ($said as $number => $value) {
            $rungs[$number] = Output::from($value)->rung() ?? ($desk[$number] ?? Rung::Full->value);
        }

        return $rungs;
    }

    private static function withObjects(Settings $settings, Output $output, Bits $numbers, Settings $desk): Settings
    {
        $rung = $output->rung();
        if ($rung !== null) {
            return $settings->withObjects($numbers, Rung::from($rung));
        }
        $settings = $settings->withObjects($numbers, Rung::Full);
        foreach ($desk->objects as $there => $those) {
            $settings = $settings->withObjects($those->shared($numbers), Rung::from($there));
        }
        foreach ($desk->objectsAlone as $there => $those) {
            $settings = $settings->withObjectsAlone($those->shared($numbers), Rung::from($there));
        }

        return $settings;
    }
}
