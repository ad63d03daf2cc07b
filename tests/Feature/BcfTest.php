<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\History;
use App\Changes\ReadBcf;
use App\Files\Kept;
use App\Models\View;
use App\Workbench\BcfOf;
use Illuminate\Http\UploadedFile;
use PHPUnit\Framework\Attributes\TestWith;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use VineShelf\Bcf\BcfReader;
use VineShelf\Bcf\BcfWriter;
use VineShelf\Bcf\Component;
use VineShelf\Bcf\Topic;
use VineShelf\Bcf\Version;
use VineShelf\Bcf\Viewpoint;
use VineShelf\Rungs\Rung;
use VineShelf\Views\Facet;

/** Views out as BCF and in again: each facet comes back as far as the format can say it, and what it cannot say is listed. */
final class BcfTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    private const CAMERA = '{"eye":[30,-30,20],"target":[0,0,3],"fov":50,"aspect":1.6}';

    private string $file;

    protected function setUp(): void
    {
        parent::setUp();
        $this->file = (string) tempnam(sys_get_temp_dir(), 'bcf');
    }

    protected function tearDown(): void
    {
        unlink($this->file);
        parent::tearDown();
    }

    #[TestWith([Version::V21])]
    #[TestWith([Version::V30])]
    public function test_each_facet_comes_back(Version $version): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0]);
        $this->send('POST', 'rungs', ['keys' => 'O12', 'rung' => 2]);
        $this->send('POST', 'section', ['section' => '{"on":true,"box":[-3,-2,-1,9,9,3],"planes":[[[1,1,0],2]]}']);
        $this->send('POST', 'tint', ['by' => 'layer']);
        $all = array_fill_keys(array_map(static fn (Facet $facet): string => "keep_$facet->value", Facet::cases()), 1);
        $this->send('POST', 'views', ['name' => 'All', 'camera' => self::CAMERA, 'note' => "For the\nclient"] + $all);
        $this->send('POST', 'isolate', ['found' => 1, 'words' => 'lifering*']);
        $flat = '{"eye":[1,2,30],"target":[1,2,0],"fov":40,"tall":12.5,"up":[0,1,0]}';
        $this->send('POST', 'views', ['name' => 'Alone', 'keep_isolation' => 1, 'keep_camera' => 1, 'camera' => $flat]);
        $views = array_values($this->project->views()->get()->all());
        $bcf = new BcfOf($this->bench(), $version);
        BcfWriter::write($bcf->topics($views), $version, 'Hall', BcfOf::guid('hall'), $this->file);
        self::assertStringContainsString('1 object is shown, though as less than Full', implode(' ', $bcf->remarks));
        [$topics, $remarks] = BcfReader::read($this->file);
        self::assertSame([], $remarks);
        $command = $this->read($topics);
        self::assertSame([2, []], [$command->views, $command->remarks]);
        foreach (['All', 'Alone'] as $name) {
            [$old, $new] = $this->project->views()->where('name', $name)->orderBy('no')->get()->all();
            self::assertSame($old->note, $new->note);
            self::assertEqualsWithDelta($old->camera['eye'] ?? [], $new->camera['eye'] ?? [], 1e-6);
            // A parallel camera has no field of view in BCF.
            self::assertEqualsWithDelta(
                [$name === 'All' ? 50 : 45, $old->camera['tall'] ?? 0],
                [$new->camera['fov'] ?? 0, $new->camera['tall'] ?? 0],
                1e-6,
            );
            self::assertEqualsWithDelta(self::way($old), self::way($new), 1e-6);
            $shown = fn (View $view): array => $this->bench()
                ->outputs()
                ->shownIn($view)
                ->rungs()
                ->being(Rung::Hidden->value)
                ->and(
                    $this->bench()
                        ->facts()
                        ->ranked('instances')
                        ->between(1, INF),
                )
                ->rows();
            self::assertSame($shown($old), $shown($new), "what $name hides");
            self::assertEqualsWithDelta($old->cut()?->toArray(), $new->cut()?->toArray(), 1e-6);
            self::assertSame($old->tint['by'] ?? null, $new->tint['by'] ?? null);
            self::assertSame($old->isolation()?->isOn(), $new->isolation()?->isOn());
        }
        $this->send('POST', 'undo')->assertSee('Undone: Read 2 views');
        self::assertSame(2, $this->project->views()->count());
        $this->assertIndexTrue($this->project->refresh());
    }

    #[TestWith(['{"eye":[30,-30,20],"target":[0,0,3],"fov":50,"up":[0.5,0.5,0.7]}', null])]
    #[TestWith(['{"eye":[3,4,30],"target":[3,4,0],"fov":50,"up":[1,0,0]}', [1.0, 0.0, 0.0]])]
    // As the canvas says a plan that is turned by a quarter: by where the eye hardly is.
    #[TestWith(['{"eye":[2.9997,4,30],"target":[3,4,0],"fov":50}', [1.0, 0.0, 1e-5]])]
    public function test_cameras_that_lean_and_plans_that_are_turned_come_back_so(string $camera, ?array $written): void
    {
        $this->send('POST', 'views', ['name' => 'Turned', 'keep_camera' => 1, 'camera' => $camera])->assertOk();
        $view = $this->project->views()->sole();
        $bcf = new BcfOf($this->bench(), Version::V30);
        BcfWriter::write($bcf->topics([$view]), Version::V30, 'Hall', BcfOf::guid('hall'), $this->file);
        [$topics] = BcfReader::read($this->file);
        $up = $topics[0]->viewpoints[0]->camera['up'] ?? [];
        self::assertEqualsWithDelta($written ?? [0.5, 0.5, 0.7], $up, 1e-6);
        $this->read($topics);
        $again = $this->project->views()->orderByDesc('no')->firstOrFail();
        self::assertEqualsWithDelta(self::way($view), self::way($again), 1e-6);
        // What stands upright needs no up.
        self::assertEqualsWithDelta($view->camera['up'] ?? null, $again->camera['up'] ?? null, 1e-6);
    }

    public function test_the_picture_of_a_view_goes_along_as_the_format_wants_it(): void
    {
        $this->send('POST', 'views', ['name' => 'Arrival', 'keep_camera' => 1, 'camera' => self::CAMERA])->assertOk();
        $view = $this->project->views()->sole();
        $file = "views/{$this->project->id}/arrival.jpg";
        Kept::put($file, (string) file_get_contents(base_path('demo/pictures/arrival.jpg')));
        $view->update(['picture' => $file]);
        $bcf = new BcfOf($this->bench(), Version::V30);
        BcfWriter::write($bcf->topics([$view->refresh()]), Version::V30, 'Hall', BcfOf::guid('hall'), $this->file);
        $snapshot = BcfReader::read($this->file)[0][0]->viewpoints[0]->snapshot;
        self::assertSame("\x89PNG", substr($snapshot, 0, 4));
        // Width and height as the format itself has them, in the first chunk.
        $size = getimagesize(base_path('demo/pictures/arrival.jpg'));
        self::assertSame(array_slice((array) $size, 0, 2), array_values((array) unpack('N2', $snapshot, 16)));
    }

    public function test_what_others_write_is_matched_and_what_is_not_there_is_counted(): void
    {
        $seat = $this->number('Seat_Shell_017');
        $key = (string) $this->project->objects()->where('no', $seat)->value('source_key');
        $those = [
            Component::read('', 'another file', $key),
            Component::read('2O2Fr$t4X7Zf8NOew3FLOH', '', ''),
            Component::read('', '', 'nobody'),
        ];
        $camera = ['eye' => [0.0, -9.0, 2.0], 'way' => [0.0, 2.0, 0.0], 'up' => [0.0, 0.0, 1.0], 'fov' => 170.0, 'aspect' => 99.0];
        $cuts = array_map(static fn (int $at): array => [[(float) $at, 0.0, 0.0], [1.0, (float) $at, 1.0]], range(1, 8));
        $topic = new Topic(
            '',
            '',
            'words',
            'x',
            'never',
            [],
            [new Viewpoint('', $camera, false, $those, $those, [['FF0000', $those]], $cuts), new Viewpoint('')],
        );
        $command = $this->read([$topic]);
        self::assertSame(2, $command->views);
        self::assertCount(2, $command->remarks, implode(' ', $command->remarks));
        $view = $this->project->views()->where('name', 'Untitled')->firstOrFail();
        $rungs = $this->bench()->asIn($view)->rungs();
        $row = $this->bench()->scene()->row($seat);
        self::assertSame(5, $rungs->at($row));
        self::assertSame(
            1,
            $rungs
                ->atLeast(1)
                ->and(
                    $this->bench()
                        ->facts()
                        ->ranked('instances')
                        ->between(1, INF),
                )
                ->count(),
        );
        self::assertSame([6, 20.0], [count($view->cut()->single ?? []), (float) ($view->camera['aspect'] ?? 0)]);
        $sets = array_map(static fn ($set): string => $set->name, $this->bench()->sets()->all());
        sort($sets);
        self::assertSame(['Untitled, #FF0000', 'Untitled, selected'], $sets);
    }

    public function test_nothing_to_read_is_refused(): void
    {
        $this->expectException(Refused::class);
        $this->read([new Topic('', 'Empty', '', '', '')]);
    }

    public function test_scripts_write_and_read_it(): void
    {
        $this->send('POST', 'views', ['name' => 'Hall', 'keep_rungs' => 1]);
        $file = "$this->file.bcf";
        $this->artisan('shelf:bcf', ['project' => $this->project->key, 'file' => $file, '--as' => '2.1', '--person' => $this->ida->email])
            ->expectsOutputToContain('1 view is in')
            ->assertExitCode(0);
        $this->artisan('shelf:bcf', ['project' => $this->project->key, 'file' => $file, '--read' => true, '--person' => $this->ida->email])
            ->expectsOutputToContain('Read 1 view from')
            ->assertExitCode(0);
        $this->artisan('shelf:bcf', ['project' => $this->project->key, 'file' => '/nowhere.bcf', '--read' => true])->assertExitCode(2);
        $this->artisan('shelf:bcf', ['project' => $this->project->key, 'file' => $file, '--as' => '9'])->assertExitCode(2);
        unlink($file);
        self::assertSame(2, $this->project->views()->count());
    }

    public function test_it_is_sent_and_taken_by_the_page(): void
    {
        $this->send('POST', 'views', ['name' => 'Hall', 'keep_rungs' => 1]);
        $sent = $this->get($this->path('bcf?as=2.1&keys=V1'))->assertOk()->assertDownload();
        $file = $sent->baseResponse instanceof BinaryFileResponse ? $sent->baseResponse->getFile()->getPathname() : '';
        $upload = static fn (string $path): UploadedFile => new UploadedFile($path, 'Their hall.bcf', null, null, true);
        $take = fn (?UploadedFile $of) => $this->call('POST', $this->path('bcf'), [], [], array_filter(['file' => $of]), [
            'HTTP_ACCEPT' => 'application/json',
        ]);
        $take($upload($file))
            ->assertOk()
            ->assertJson(['says' => 'Read 1 view from Their hall.bcf.', 'remarks' => []]);
        self::assertSame(
            ['Their hall'],
            array_map(static fn ($folder): string => $folder->name, array_values($this->bench()->shelf()->folders)),
        );
        file_put_contents($this->file, 'no zip at all');
        $take($upload($this->file))->assertStatus(422)->assertSee('cannot be opened');
        $take(null)->assertStatus(422);
        $this->get($this->path('bcf?as=9'))->assertStatus(422);
        $this->get($this->path('bcf?keys=V99'))->assertStatus(422);
    }

    /** @param list<Topic> $topics */
    private function read(array $topics): ReadBcf
    {
        return $this->app
            ->make(History::class)
            ->carryOut($this->bench(), static fn (Bench $held): ReadBcf => new ReadBcf($held, $topics, 'from others.bcf'));
    }

    /** @return list<float> where a view's camera looks, one metre long */
    private static function way(View $view): array
    {
        $way = array_map(static fn ($to, $from): float => $to - $from, $view->camera['target'] ?? [], $view->camera['eye'] ?? []);
        $length = sqrt(array_sum(array_map(static fn (float $each): float => $each * $each, $way)));

        return array_map(static fn (float $each): float => $each / $length, $way);
    }
}
