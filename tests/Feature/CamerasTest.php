<?php

declare(strict_types=1);

namespace Tests\Feature;

use PHPUnit\Framework\Attributes\TestWith;
use Tests\Core\Support\Gltf;
use VineShelf\Layers\SortBy;
use VineShelf\Views\Facet;

/** Cameras alone: those of the model as views, a turn, and cameras that views hold. */
final class CamerasTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    private const CAMERA = '{"eye":[4,0,2],"target":[0,0,0],"fov":40,"aspect":1.5}';

    public function test_the_cameras_of_the_model_become_views_that_keep_nothing_else(): void
    {
        $this->takeIn($this->ida, Gltf::file(self::withCameras()), SortBy::Unsorted, 'cameras.gltf', into: $this->project);
        $cameras = (array) $this->getJson($this->path('cameras'))->assertOk()->json();
        self::assertCount(2, array_filter($cameras, static fn (array $camera): bool => str_starts_with($camera['name'], 'From')));
        $this->send('POST', 'cameras', ['all' => 1])->assertSee('Keep '.count($cameras).' cameras as views.');
        $views = $this->project->views()->get();
        self::assertSame(count($cameras), $views->count());
        foreach ($views as $at => $view) {
            self::assertSame([Facet::Camera], $view->facets());
            self::assertSame($cameras[$at]['name'], $view->name);
            self::assertEqualsWithDelta($cameras[$at]['eye'], $view->camera['eye'] ?? [], 1e-6);
            self::assertSame($cameras[$at]['tall'] ?? null, $view->camera['tall'] ?? null);
        }
        self::assertSame(
            ['Cameras of the model'],
            array_map(static fn ($folder): string => $folder->name, array_values($this->bench()->shelf()->folders)),
        );
        $this->send('POST', 'undo');
        self::assertSame([0, []], [$this->project->views()->count(), $this->bench()->shelf()->folders]);
        $this->send('POST', 'cameras', ['object' => $cameras[0]['object']])->assertSee("Keep camera {$cameras[0]['name']} as views.");
        $before = $this->bench()->settings();
        $this->send('POST', 'views/'.$this->project->refresh()->next_view - 1 .'/apply')->assertOk();
        self::assertTrue($before->same($this->bench()->settings()));
        $this->send('POST', 'cameras', ['object' => 12])->assertStatus(422);
    }

    public function test_a_turn_is_a_series_of_views_in_a_folder(): void
    {
        $this->get($this->path('cameras/around'))->assertOk();
        $this->send('POST', 'cameras/around', ['camera' => self::CAMERA, 'count' => 4, 'name' => 'Pump'])->assertSee(
            'Keep 4 cameras as views.',
        );
        self::assertSame(['Pump 0°', 'Pump 90°', 'Pump 180°', 'Pump 270°'], $this->project->views()->pluck('name')->all());
        self::assertEqualsWithDelta([0, 4, 2], $this->project->views()->where('no', 2)->firstOrFail()->camera['eye'] ?? [], 1e-9);
        $this->send('POST', 'cameras/around', ['camera' => self::CAMERA, 'count' => 3, 'name' => 'Pump']);
        self::assertSame(
            ['Pump', 'Pump 2'],
            array_map(static fn ($folder): string => $folder->name, array_values($this->bench()->shelf()->folders)),
        );
    }

    public function test_a_camera_that_a_view_holds_is_not_moved_by_updating_it(): void
    {
        $this->send('POST', 'views', ['name' => 'Held', 'keep_camera' => 1, 'keep_rungs' => 1, 'camera' => self::CAMERA]);
        $this->send('POST', 'cameras/hold', ['views' => 1, 'on' => 1])->assertSee('Hold the camera of view Held.');
        $other = str_replace('[4,0,2]', '[9,9,9]', self::CAMERA);
        $this->send('PATCH', 'views/1', ['keep_camera' => 1, 'camera' => $other])
            ->assertStatus(422)
            ->assertSee('Held holds its camera; let it go first.');
        $this->send('POST', 'views/facets', ['keys' => 'V1', 'keep_camera' => 1, 'camera' => $other])->assertStatus(422);
        $this->send('POST', 'rungs', ['keys' => 'L3', 'rung' => 2]);
        $this->get($this->path('views/1/update'))->assertSee('It holds its camera');
        $this->send('PATCH', 'views/1', [])->assertOk();
        $view = $this->project->views()->where('no', 1)->firstOrFail();
        self::assertSame([[4, 0, 2], 2], [$view->camera['eye'] ?? [], $view->settings()->layer(3)?->value]);
        $this->send('POST', 'views/1/apply')->assertSee('&quot;hold&quot;:true', false);
        $this->send('POST', 'cameras/hold', ['views' => 1, 'on' => 0])->assertSee('Let go the camera');
        $this->send('PATCH', 'views/1', ['keep_camera' => 1, 'camera' => $other])->assertOk();
    }

    #[TestWith(['cameras', []])]
    #[TestWith(['cameras', ['object' => 999999]])]
    #[TestWith(['cameras/around', ['camera' => self::CAMERA, 'count' => 1]])]
    #[TestWith(['cameras/around', ['camera' => self::CAMERA, 'count' => 999]])]
    #[TestWith(['cameras/around', ['camera' => '{"eye":[0,0,5],"target":[0,0,0],"fov":40}', 'count' => 4]])]
    #[TestWith(['cameras/around', ['camera' => '', 'count' => 4]])]
    #[TestWith(['cameras/hold', ['views' => '', 'on' => 1]])]
    #[TestWith(['cameras/hold', ['views' => '7', 'on' => 1]])]
    public function test_odd_cameras_are_refused(string $path, array $given): void
    {
        self::assertContains($this->send('POST', $path, $given)->getStatusCode(), [302, 422]);
        self::assertSame(0, $this->project->views()->count());
    }

    /** @return array<string, mixed> */
    private static function withCameras(): array
    {
        $gltf = Gltf::triangle();
        $gltf['cameras'] = [
            ['type' => 'perspective', 'perspective' => ['yfov' => 0.7, 'znear' => 0.1]],
            ['type' => 'orthographic', 'orthographic' => ['xmag' => 6, 'ymag' => 4, 'znear' => 0.1, 'zfar' => 100]],
        ];
        $gltf['nodes'] = [
            ['name' => 'Pane', 'mesh' => 0],
            ['name' => 'From the door', 'camera' => 0, 'translation' => [3, 2, 1]],
            ['name' => 'From the side', 'camera' => 1, 'translation' => [-3, 2, 1]],
        ];
        $gltf['scenes'] = [['nodes' => [0, 1, 2]]];

        return $gltf;
    }
}
