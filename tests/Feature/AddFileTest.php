<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Files\Kept;
use App\Intake\Room;
use App\Jobs\Sorted;
use App\Jobs\Sweep;
use App\Jobs\TakeIn;
use App\Jobs\Uploads;
use App\Models\Import;
use App\Models\ImportState;
use App\Models\Source;
use Illuminate\Support\Facades\DB;
use Tests\Core\Support\Gltf;
use VineShelf\Layers\SortBy;

/** Another file comes into a project: where it lands, which layers it finds again, and the file as it came. */
final class AddFileTest extends ProjectTestCase
{
    public function test_layers_are_found_again_though_renamed_or_nested_and_what_is_unfiled_lands_where_it_was_said(): void
    {
        $this->add(['Bench' => 'Joinery', 'Lamp' => 'Electric']);
        [$joinery, $electric] = [$this->layer($this->project, 'Joinery'), $this->layer($this->project, 'Electric')];
        $this->send('PATCH', "rows/L$joinery", ['name' => 'Timber work']);
        $this->send('POST', 'rows/move', ['keys' => "L$electric", 'where' => 'into', 'mark' => 'L4']);
        // A layer that people made is called like one that comes: it is the one, and not a second beside it.
        $this->send('POST', 'layers', ['name' => 'Plumbing']);
        $plumbing = $this->layer($this->project, 'Plumbing');
        $count = $this->project->layers()->count();
        $import = $this->add(['Shelf' => 'joinery', 'Switch' => 'Electric', 'Tap' => 'PLUMBING', 'Loose' => ''], landing: 4);
        self::assertSame($count, $this->project->layers()->count());
        $layers = $this->project->objects()->where('source_id', $import->source_id)->pluck('layer_no', 'name')->all();
        self::assertSame([$joinery, $electric, $plumbing, 4], [$layers['Shelf'], $layers['Switch'], $layers['Tap'], $layers['Loose']]);
        // Without a word it lands where the person's new things do.
        $this->send('POST', 'landing', ['layer' => 5]);
        $import = $this->add(['Odd' => '']);
        self::assertSame(5, (int) $this->project->objects()->where('source_id', $import->source_id)->value('layer_no'));
        // A landing that is gone meanwhile is none.
        $import = $this->add(['Odder' => ''], landing: 999);
        self::assertSame(1, (int) $this->project->objects()->where('source_id', $import->source_id)->value('layer_no'));
    }

    public function test_where_several_layers_are_called_so_somebody_is_asked_which_is_meant(): void
    {
        foreach (['Doors' => 'L2,L3', 'Pipes' => 'L2,L3,L4'] as $name => $in) {
            foreach (explode(',', $in) as $key) {
                $this->send('POST', 'layers', ['name' => $name, 'parent' => substr($key, 1)])->assertOk();
            }
        }
        $doors = $this->project->layers()->where('name', 'Doors')->orderBy('no')->pluck('no')->all();
        $pipes = $this->project->layers()->where('name', 'Pipes')->orderBy('no')->pluck('no')->all();
        $import = $this->add(['Flap' => 'doors', 'Bend' => 'Pipes', 'Desk' => 'Joinery']);
        $home = fn (string $name): int => (int) $this->project->objects()->where('name', $name)->value('layer_no');
        [$newDoors, $newPipes] = [$home('Flap'), $home('Bend')];
        self::assertNotContains($newDoors, $doors);
        $this->getJson("/imports/$import->key")->assertJson(['unsure' => "/sources/$import->source_id/unsure"]);
        $this->get($this->path("report/$import->source_id"))->assertSee('2 of its layers could be one of several');
        $this->get($this->path("sources/$import->source_id/unsure"))
            ->assertOk()
            ->assertSee("name=\"layer-$newDoors\"", false)
            ->assertSee("<option value=\"$pipes[2]\">", false);

        // One is matched, the other stays by itself; that is one change, and can be taken back.
        $match = $this->path("sources/$import->source_id/match");
        $this->post($match, ["layer-$newDoors" => $pipes[0]])->assertStatus(422);
        $this->post($match, ["layer-$newDoors" => $doors[1], "layer-$newPipes" => 0])->assertSee('Match layer doors with what is here.');
        self::assertSame([$doors[1], $newPipes], [$home('Flap'), $home('Bend')]);
        $this->get($this->path("sources/$import->source_id/unsure"))->assertDontSee("layer-$newDoors")->assertSee("layer-$newPipes");
        $this->send('POST', 'undo')->assertSee('Undone: Match layer doors');
        self::assertSame($newDoors, $home('Flap'));
        $this->post($match, ["layer-$newDoors" => $doors[0], "layer-$newPipes" => $pipes[2]])->assertSee('Match 2 layers');
        self::assertSame([$doors[0], $pipes[2]], [$home('Flap'), $home('Bend')]);
        $this->assertIndexTrue($this->project);
        $this->get($this->path("report/$import->source_id"))->assertDontSee('could be one of several');
        $this->post($match, [])->assertSee('They stay layers of their own.');
        $this->get($this->path('sources/999999/unsure'))->assertNotFound();
        $clear = $this->add(['Shelf' => 'Joinery']);
        $this->getJson("/imports/$clear->key")->assertJson(['unsure' => null]);
    }

    public function test_groups_made_here_go_to_the_landing_layer_when_one_was_chosen(): void
    {
        $first = $this->project->objects()->where('layer_no', 4)->where('triangles', '>', 0)->orderBy('no')->limit(2)->pluck('no')->all();
        $home = fn (string $name): int => (int) $this->project->objects()->where('name', $name)->value('layer_no');
        $this->send('POST', 'objects/group', ['keys' => "O$first[0]", 'name' => 'As before'])->assertOk();
        self::assertSame(4, $home('As before'));
        $this->send('POST', 'landing', ['layer' => 5]);
        $this->send('POST', 'objects/group', ['keys' => "O$first[1]", 'name' => 'Landed'])->assertOk();
        self::assertSame(5, $home('Landed'));
        self::assertSame(4, (int) $this->project->objects()->where('no', $first[1])->value('layer_no'));
    }

    public function test_the_dialog_says_what_views_will_show_and_the_state_can_be_asked_for(): void
    {
        $this->get($this->path('sources/ask?name=a.glb'))->assertSee('No view keeps rungs yet');
        foreach ([0, 0, 5, -1] as $at => $get) {
            $this->send('POST', 'views', ['name' => "View $at", 'keep_rungs' => 1], count: 0);
            $this->send('PATCH', 'views/'.($at + 1), ['newcomers' => $get]);
        }
        $page = (string) $this->get($this->path('sources/ask?name=%3Cb%3E.glb'))->getContent();
        self::assertStringContainsString('&lt;b&gt;.glb', $page);
        self::assertStringContainsString(
            '4 views have not seen it: 2 hide it until somebody reviews what is new, 1 shows it in full, 1 shows it as the desk does.',
            (string) preg_replace('~\s+~', ' ', strip_tags($page)),
        );
        $import = $this->add(['Bench' => 'Joinery']);
        $this->getJson("/imports/$import->key")->assertJson(['state' => 'done', 'objects' => 1, 'name' => 'more.gltf']);
        $this->get($this->path("report/$import->source_id"))->assertSee('more.gltf')->assertSee('The file as it came is kept');
        $this->get($this->path(''))->assertSee('2 sources');
        $this->postJson('/imports', ['project' => $this->project->key, 'landing' => 'x', 'sort_by' => 'none'])->assertStatus(422);
    }

    public function test_the_file_as_it_came_is_kept_once_for_each_content_counted_and_removed_by_choice(): void
    {
        $before = Room::used($this->ida);
        $file = (string) file_get_contents($this->file(['Bench' => 'Joinery']));
        $first = $this->source($this->add(['Bench' => 'Joinery']));
        $second = $this->source($this->add(['Bench' => 'Joinery']));
        self::assertSame([$first->original, $file], [$second->original, Kept::get($first->original)]);
        self::assertCount(1, array_filter(Kept::disk()->files('originals'), static fn (string $kept): bool => $kept === $first->original));
        self::assertGreaterThanOrEqual($before + 2 * strlen($file), Room::used($this->ida));
        self::assertSame($file, $this->get($this->path("sources/$first->id/original"))->assertDownload('more.gltf')->streamedContent());
        // Removed for one, it stays for the other.
        $kept = $first->kept;
        $this->delete($this->path("sources/$first->id/original"))->assertRedirect();
        self::assertSame(['', $kept - strlen($file)], [$first->refresh()->original, $first->kept]);
        self::assertTrue(Kept::disk()->exists($second->original));
        $this->get($this->path("report/$first->id"))->assertSee('The file as it came was removed on');
        $this->get($this->path("sources/$first->id/original"))->assertNotFound();
        $this->delete($this->path("sources/$first->id/original"))->assertRedirect();
        $this->delete($this->path("sources/$second->id/original"))->assertRedirect();
        self::assertFalse(Kept::disk()->exists($second->original === '' ? 'x' : $second->original));
        self::assertNull(Kept::get('originals/'.hash('sha256', $file).'.gltf'));
        // Viewers neither take it nor remove it, and other projects do not have it.
        $third = $this->source($this->add(['Bench' => 'Joinery']));
        $vera = $this->person('Vera Moss');
        $this->project->people()->attach($vera, ['role' => 'viewer']);
        $this->actingAs($vera);
        $this->get($this->path("sources/$third->id/original"))->assertNotFound();
        $this->delete($this->path("sources/$third->id/original"))->assertNotFound();
    }

    public function test_what_no_source_came_from_is_swept_and_a_full_disk_leaves_everything_as_it_was(): void
    {
        $source = $this->source($this->add(['Bench' => 'Joinery']));
        Kept::put('originals/'.str_repeat('a', 64).'.glb', 'left over');
        foreach (Kept::disk()->files('originals') as $file) {
            touch(Kept::disk()->path($file), time() - 7200);
        }
        (new Sweep)->run();
        self::assertSame(
            [false, true],
            [Kept::disk()->exists('originals/'.str_repeat('a', 64).'.glb'), Kept::disk()->exists($source->original)],
        );
        // A folder where the file should be: it cannot be kept.
        $path = $this->file(['Other' => 'Joinery', 'More' => '']);
        $kept = 'originals/'.hash_file('sha256', $path).'.gltf';
        Kept::disk()->makeDirectory("$kept/in/the/way");
        $objects = $this->project->objects()->count();
        $import = $this->add(['Other' => 'Joinery', 'More' => '']);
        self::assertSame(ImportState::Failed, $import->state);
        self::assertSame($objects, $this->project->objects()->count());
        $isPart = static fn (string $file): bool => str_contains($file, '.part-');
        self::assertSame([], array_filter(Kept::disk()->allFiles('originals'), $isPart));
        Kept::disk()->deleteDirectory($kept);
    }

    public function test_the_bar_moves_while_the_file_is_still_being_read(): void
    {
        $shares = [];
        \VineShelf\Formats\Files::open(self::demoFile(), progress: static function (int $objects, float $share) use (&$shares): void {
            $shares[] = $share;
        });
        self::assertGreaterThan(1, count($shares));
        $sorted = $shares;
        sort($sorted);
        self::assertSame($sorted, $shares);
        self::assertGreaterThan(0, $shares[0]);
        self::assertLessThanOrEqual(1, end($shares));
    }

    /** @param array<string, string> $parts layer by name of the part, "" for none */
    private function file(array $parts): string
    {
        $gltf = Gltf::triangle();
        $gltf['nodes'] = [];
        foreach ($parts as $name => $layer) {
            $gltf['nodes'][] = ['name' => $name, 'mesh' => 0] + ($layer === '' ? [] : ['extras' => ['layer' => $layer]]);
        }
        $gltf['scenes'] = [['nodes' => array_keys($gltf['nodes'])]];

        return Gltf::file($gltf);
    }

    /** @param array<string, string> $parts */
    private function add(array $parts, int $landing = 0): Import
    {
        $import = $this->app
            ->make(Uploads::class)
            ->receive($this->ida, $this->project, $this->file($parts), 'more.gltf', new Sorted(SortBy::Property, 'layer'), $landing);
        if (! $import->refresh()->isOver()) {
            $this->app->call([new TakeIn($import->id), 'handle']);
        }
        $this->project->refresh();
        DB::table('jobs')->delete();

        return $import->refresh();
    }

    private function source(Import $import): Source
    {
        return Source::query()->findOrFail($import->source_id);
    }
}
