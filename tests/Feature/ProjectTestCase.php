<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Models\Project;
use App\Models\User;
use Illuminate\Testing\TestResponse;
use Tests\Core\Support\Gltf;
use Tests\TestCase;

/** A test that starts signed in, with Marlpit Baths taken in. */
abstract class ProjectTestCase extends TestCase
{
    /** Whether its meshes have coarser versions. */
    protected const IS_COARSE = false;

    protected User $ida;

    protected Project $project;

    protected function setUp(): void
    {
        parent::setUp();
        $this->ida = $this->person();
        $this->project = static::IS_COARSE ? $this->coarseBaths($this->ida) : $this->baths($this->ida);
        $this->actingAs($this->ida);
    }

    protected function path(string $path): string
    {
        return "/projects/{$this->project->key}/$path";
    }

    /** @param array<string, mixed> $values */
    protected function send(string $method, string $path, array $values = [], int $count = 4): TestResponse
    {
        return $this->call($method, $this->path($path), $values + ['lens' => 'layers', 'from' => 0, 'count' => $count]);
    }

    /** The project as Ida sees it now. */
    protected function bench(): Bench
    {
        return Bench::of($this->project->refresh(), $this->ida);
    }

    /** The number of the object with the name. */
    protected function number(string $name): int
    {
        return (int) $this->project->objects()->where('name', $name)->value('no');
    }

    /** Marlpit Baths somewhere on a map: 420 km east of where it stands otherwise, 51 km north and 30 m higher. */
    protected static function farDemoFile(): string
    {
        $given = (string) file_get_contents(self::demoFile());
        $length = unpack('V', $given, 12)[1] ?? 0;
        $gltf = (array) json_decode(substr($given, 20, $length), true);
        foreach ($gltf['scenes'][0]['nodes'] as $node) {
            $gltf['nodes'][$node]['translation'] = [420_000.0, 30.0, -51_000.0];
        }

        return Gltf::binary($gltf, substr($given, 28 + $length));
    }
}
