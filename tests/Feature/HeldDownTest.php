<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Keys;
use App\Bench\Targets;
use App\Workbench\HeldDown;
use PHPUnit\Framework\Attributes\TestWith;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;

/** A raise that does not come into effect says what still holds how many, and mends it; why answers for any rows and any pick. */
final class HeldDownTest extends ProjectTestCase
{
    public function test_a_layer_that_is_shown_says_which_of_its_objects_stay_hidden_and_by_what(): void
    {
        $this->tagSteel();
        $steel = $this->inLayer(4);
        $this->send('POST', 'rungs', ['keys' => 'L4', 'rung' => 'hide'])->assertDontSee('stay hidden');
        $this->send('POST', 'rungs', ['keys' => "O$steel[0],O$steel[1]", 'rung' => 0]);
        $this->send('POST', 'rungs', ['keys' => 'L4', 'rung' => 'back'])
            ->assertSee('12 Steel: Shown again. 2 of 53 stay hidden: by their own settings.')
            ->assertSee('Raise their own settings');
        $this->send('POST', 'rungs', ['keys' => 'T1', 'rung' => 0]);
        $this->send('POST', 'rungs', ['keys' => 'L4', 'rung' => 5])
            ->assertSee('12 Steel: Full. All 53 stay hidden: by tag Wet, 2 by their own settings.')
            ->assertSeeInOrder(['Raise tag Wet', 'Raise their own settings', 'Raise all', 'Why']);
        // One cause is mended alone.
        $this->send('POST', 'why', ['keys' => 'L4', 'what' => 'tag', 'number' => 1, 'part' => 'rung'])
            ->assertSee('Tag Wet no longer holds them down.');
        self::assertSame([0 => 2, 5 => 51], $this->rungs('L4'));
        $this->send('POST', 'desk/undo');
        $this->send('POST', 'isolate', ['keys' => 'L5']);
        $this->send('POST', 'why', ['keys' => 'L4', 'what' => 'all', 'part' => 'rung'])
            ->assertSee('12 Steel: raised.')
            ->assertDontSee('stay');
        self::assertSame([5 => 53], $this->rungs('L4'));
        // What was lowered on purpose is not told of: a ghost has hidden parts.
        $this->send('POST', 'rungs', ['keys' => "O$steel[0]", 'rung' => 0]);
        $this->send('POST', 'rungs', ['keys' => 'L4', 'rung' => 2])->assertDontSee('stay');
    }

    public function test_groups_the_ceiling_and_what_is_locked_are_named_and_locked_rungs_are_left_alone(): void
    {
        $steel = $this->inLayer(4);
        $this->send('POST', 'rungs/ceiling', ['rung' => 2]);
        $this->send('POST', 'rungs', ['keys' => 'L4', 'rung' => 5])
            ->assertSee('All 53 stay below that: by the ceiling of the desk.')
            ->assertSee('Lift it');
        $this->send('POST', 'rungs/ceiling', ['rung' => 5]);
        $this->send('POST', 'rungs', ['keys' => "O$steel[3]", 'rung' => 1]);
        $this->send('POST', 'locks', ['keys' => "O$steel[3]", 'lock' => 2]);
        $this->send('POST', 'why', ['keys' => 'L4', 'what' => 'all', 'part' => 'rung'])
            ->assertSee('1 locked object was left alone.')
            ->assertSee('1 of 53 stays below that: by their own settings.');
        $this->get($this->path("why?keys=L4,O$steel[3]"))->assertSee('1 of 53 in 1 layer and 1 object is held below Full');
    }

    public function test_why_answers_for_the_pick_for_what_was_found_and_for_kinds(): void
    {
        $steel = $this->inLayer(4);
        $this->send('POST', 'rungs', ['keys' => "O$steel[0],O$steel[1]", 'rung' => 0]);
        $this->send('POST', 'pick', ['keys' => 'L4', 'mode' => 'replace']);
        $this->get($this->path('why'))
            ->assertSee('2 of 53 in 53 objects are held below Full')
            ->assertSee('Settings of the objects themselves');
        $this->get($this->path('why?on=found&words=layer:steel'))->assertSee('2 of 53');
        $this->get($this->path('why?keys=S1'))->assertSee('are held below Full');
        $this->send('POST', 'rungs', ['on' => 'found', 'words' => 'layer:steel', 'rung' => 'hide'])->assertSee('53 objects: Hidden.');
        $this->send('POST', 'rungs', ['on' => 'found', 'words' => 'layer:steel', 'rung' => 'back'])->assertSee('53 objects: Shown again.');
        self::assertSame([5 => 53], $this->rungs('L4'));
        $this->send('POST', 'rungs', ['on' => 'found', 'words' => 'layer:steel', 'rung' => '3'])->assertSee('53 objects: Coarse.');
        $this->json('POST', $this->path('rungs'), ['on' => 'found', 'words' => '', 'rung' => '3'])->assertStatus(422);
        $this->json('POST', $this->path('rungs'), ['on' => 'found', 'words' => '((', 'rung' => '3'])->assertStatus(422);
    }

    public function test_pictures_that_stay_without_it_say_so_as_well(): void
    {
        $this->tagSteel();
        $this->send('POST', 'output', ['keys' => 'L4', 'output' => 'hide']);
        $this->send('POST', 'output', ['keys' => 'T1', 'output' => 'never']);
        $this->send('POST', 'output', ['keys' => 'L4', 'output' => 'back'])->assertSee('All 53 stay hidden in pictures: by tag Wet.');
        $this->send('POST', 'why', ['keys' => 'L4', 'what' => 'tag', 'number' => 1, 'part' => 'rung', 'side' => 'output'])->assertOk();
        self::assertSame([5 => 53], $this->bench()->outputs()->side()->inEffect->rungs()->histogramOf($this->reached('L4')));
    }

    #[TestWith([3])]
    #[TestWith([19])]
    public function test_counts_are_those_of_asking_every_object_alone(int $seed): void
    {
        mt_srand($seed);
        $this->tagSteel('L4,L5');
        for ($run = 0; $run < 8; $run++) {
            $bench = $this->bench();
            $settings = new Settings(
                [4 => mt_rand(0, 5), 5 => mt_rand(0, 5)],
                [mt_rand(0, 4) => Bits::ofRows(400, array_unique([mt_rand(1, 200), mt_rand(201, 400)]))],
                [1 => mt_rand(0, 5)],
            );
            $bench->desk->putSettings($settings);
            $bench->sit($bench->desk);
            $wanted = Rung::from(mt_rand(1, 5));
            $rows = $this->reached('L4')->or($this->reached('L5'));
            $held = HeldDown::below($bench, $bench->side(false), $rows, $wanted);
            $by = [];
            $count = 0;
            foreach ($rows->rows() as $row) {
                $why = $bench->side(false)->why($bench, $row);
                $count += $why->rung->value < $wanted->value ? 1 : 0;
                $causes = [];
                foreach ($why->causes as $cause) {
                    if ($cause->rung !== null && $cause->rung->value < $wanted->value) {
                        $causes[$cause->what === 'object' ? ($cause->own ? 'own' : 'group') : "$cause->what $cause->number"] = true;
                    }
                }
                foreach (array_keys($causes) as $cause) {
                    $by[$cause] = ($by[$cause] ?? 0) + 1;
                }
            }
            $found = [];
            foreach ($held->holders ?? [] as $holder) {
                $name = in_array($holder->what, ['own', 'group'], true) ? $holder->what : "$holder->what $holder->number";
                $found[$name] = ($found[$name] ?? 0) + $holder->rows->count();
            }
            ksort($by);
            ksort($found);
            self::assertSame($count === 0, $held === null);
            self::assertSame($by, $found);
        }
    }

    private function tagSteel(string $keys = 'L4'): void
    {
        $this->send('POST', 'tags', ['name' => 'Wet']);
        $this->send('POST', 'pick', ['keys' => $keys, 'mode' => 'replace']);
        $this->send('POST', 'tag', ['tag' => 1, 'mode' => 'add']);
        $this->send('POST', 'pick', ['mode' => 'replace']);
    }

    /** @return list<int> numbers of the objects filed right under a layer */
    private function inLayer(int $layer): array
    {
        $numbers = $this->project->objects()->where('layer_no', $layer)->orderBy('no')->pluck('no')->all();

        return array_values(array_map(intval(...), $numbers));
    }

    private function reached(string $key): Bits
    {
        return Targets::named(Keys::of([$key]), $this->bench())->reached($this->bench());
    }

    /** @return array<int, int> how many objects of a row are at each rung */
    private function rungs(string $key): array
    {
        return $this->bench()->inEffect()->rungs()->histogramOf($this->reached($key));
    }
}
