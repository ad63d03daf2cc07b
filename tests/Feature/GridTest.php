<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Refused;
use App\Ledger\GridSheet;
use App\Models\View;
use VineShelf\Rungs\Rung;

/** The ledger widened over views: cells by window, blocks in one change, as text and as a file. */
final class GridTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    protected function setUp(): void
    {
        parent::setUp();
        foreach (range(1, 10) as $number) {
            $this->send('POST', 'views', ['name' => "View $number", 'keep_rungs' => 1], count: 0);
        }
        $camera = '{"eye":[1,2,3],"target":[0,0,0],"fov":40}';
        $this->send('POST', 'views', ['name' => 'Camera', 'keep_camera' => 1, 'camera' => $camera], count: 0);
    }

    public function test_one_layer_is_hidden_in_seven_of_ten_views_in_one_change_and_taken_back(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $next = $this->project->refresh()->next_change;
        $this->send('POST', 'grid', ['keys' => "L$seats", 'columns' => 'V1,V2,V3,V4,V5,V6,V7,V11', 'rung' => 0])
            ->assertSee('Hidden in 8 views: 51 Seats.')
            ->assertSee('1 view keeps no rungs and was left alone.');
        self::assertSame([...array_fill(0, 7, 0), null, null, null], $this->column("L$seats"));
        self::assertSame($next + 1, $this->project->refresh()->next_change);
        self::assertSame([], $this->bench()->settings()->layers, 'the desk is untouched');
        $this->send('POST', 'undo');
        self::assertSame(array_fill(0, 10, null), $this->column("L$seats"));
        $this->send('POST', 'redo');
        $this->send('POST', 'grid', ['where' => 'V1:0', 'columns' => 'V8,D', 'rung' => 2])->assertSee('On the desk as well.');
        self::assertSame([2, Rung::Ghost], [$this->column("L$seats")[7], $this->bench()->settings()->layer($seats)]);
        $this->send('POST', 'grid', ['keys' => "L$seats", 'columns' => 'O', 'rung' => 1])->assertSee('Box in pictures: 51 Seats.');
        self::assertSame(1, $this->bench()->layers()->get($seats)->output?->value);
    }

    public function test_rows_and_columns_come_in_windows_and_only_what_is_set_or_differs_can_be_shown(): void
    {
        $this->send('POST', 'ledger', ['views' => '[0,"",""]'])->assertSee('data-views="11"', false);
        $page = (string) $this->get($this->path('ledger?lens=layers&left=3&across=10'))->getContent();
        self::assertStringContainsString('data-left="1"', $page);
        self::assertSame([38 * 10, 10], [substr_count($page, 'class="view-cell"'), substr_count($page, 'data-view-head=')]);
        $this->send('POST', 'grid', ['span' => '1-2', 'columns' => 'V1,V2', 'rung' => 3, 'count' => 60]);
        $this->send('POST', 'grid', ['keys' => 'O12,O14', 'columns' => 'V1', 'rung' => 0]);
        $this->send('POST', 'ledger', ['views' => '[0,"view 1","set"]'])
            ->assertSee('data-views="2"', false)
            ->assertSee('data-total="4"', false);
        $this->send('POST', 'ledger', ['views' => '[0,"","differ"]'])->assertSee('data-total="4"', false);
        $this->send('POST', 'grid', ['span' => '0-1', 'columns' => 'V3,V4,V5,V6,V7,V8,V9,V10', 'rung' => 3]);
        $this->send('POST', 'ledger', ['views' => '[0,"","differ"]'])->assertSee('data-total="2"', false);
        $this->get($this->path('ledger/place?lens=layers&key=O14'))->assertJson(['key' => 'O14', 'place' => 1]);
        $this->send('POST', 'ledger', ['views' => 'null'])->assertDontSee('view-cell');
    }

    public function test_cells_are_copied_as_text_and_pasted_from_one_cell_on(): void
    {
        $this->send('POST', 'ledger', ['views' => '[0,"",""]']);
        $this->send('POST', 'grid', ['span' => '1-1', 'columns' => 'V1', 'rung' => 0]);
        $this->send('POST', 'grid', ['span' => '2-2', 'columns' => 'V2', 'rung' => 4]);
        $copied = (string) $this->get($this->path('grid/cells?lens=layers&span=1-2&columns=V1,V2'))->assertOk()->getContent();
        self::assertSame("0\t.\n.\t4", $copied);
        $this->send('POST', 'grid/paste', ['span' => '5-5', 'columns' => 'V4', 'pattern' => $copied])->assertSee(
            'Paste into 2 views: 2 layers.',
        );
        self::assertSame("0\t.\n.\t4", $this->get($this->path('grid/cells?lens=layers&span=5-6&columns=V4,V5'))->getContent());
        $this->send('POST', 'grid/paste', ['span' => '10-13', 'columns' => 'V1,V2,V3', 'pattern' => "Ghost\tplain"])->assertOk();
        self::assertSame(
            implode("\n", array_fill(0, 4, "2\t4\t2")),
            $this->get($this->path('grid/cells?lens=layers&span=10-13&columns=V1,V2,V3'))->getContent(),
        );
        $this->send('POST', 'grid/copy', ['span' => '10-11', 'columns' => 'V8,V9', 'source' => 'V1'])->assertSee(
            'Copy from View 1 to 2 views: 2 layers.',
        );
        $this->send('POST', 'rungs', ['keys' => 'O12', 'rung' => 1]);
        $this->send('POST', 'grid/copy', ['keys' => 'O12', 'columns' => 'V8', 'source' => 'D'])->assertSee('Copy from the desk');
        self::assertSame(
            [1, "2\n2"],
            [
                $this->saved(8)->settings()->object(12)?->value,
                $this->get($this->path('grid/cells?lens=layers&span=10-11&columns=V9'))->getContent(),
            ],
        );
    }

    /** Each is refused, so that the next one meets the same project. */
    public function test_odd_blocks_are_refused_and_change_nothing(): void
    {
        $before = $this->project->refresh()->revision;
        $odd = [
            ['grid', ['keys' => 'L3', 'columns' => 'V99', 'rung' => 0]],
            ['grid', ['keys' => 'L3', 'columns' => '', 'rung' => 0]],
            ['grid', ['keys' => 'K3', 'columns' => 'V1', 'rung' => 0]],
            ['grid', ['keys' => '', 'columns' => 'V1', 'rung' => 0]],
            ['grid', ['keys' => 'L3', 'columns' => 'V1', 'rung' => 6]],
            ['grid', ['keys' => 'L3', 'columns' => 'V1', 'rung' => '']],
            ['grid', ['where' => 'V11:0', 'columns' => 'V1', 'rung' => 0]],
            ['grid', ['where' => 'V1:0', 'columns' => 'V1', 'rung' => 0]],
            ['grid', ['where' => 'x', 'columns' => 'V1', 'rung' => 0]],
            ['grid', ['keys' => 'L99999', 'columns' => 'V1', 'rung' => 0]],
            ['grid/copy', ['keys' => 'L3', 'columns' => 'V1', 'source' => 'V11']],
            ['grid/copy', ['keys' => 'L3', 'columns' => 'V1', 'source' => 'L3']],
            ['grid/paste', ['keys' => 'L3', 'columns' => 'V1', 'pattern' => "0\tno"]],
            ['grid/paste', ['keys' => 'L3', 'columns' => 'D', 'pattern' => '']],
            ['grid/read', ['sheet' => 'Name,Row']],
            ['grid/read', ['sheet' => '']],
            ['grid/read', ['sheet' => "Row,Number,Name,View 1\nlayer,3,x,Shiny"]],
        ];
        foreach ($odd as [$path, $given]) {
            $case = $path.' '.json_encode($given);
            self::assertContains($this->send('POST', $path, $given)->getStatusCode(), [302, 422], $case);
            self::assertSame($before, $this->project->refresh()->revision, $case);
        }
    }

    public function test_a_file_is_written_and_read_back_with_a_preview(): void
    {
        $this->send('PATCH', 'views/2', ['name' => '=SUM(A1), "second"']);
        $this->send('POST', 'grid', ['keys' => 'L3,L4', 'columns' => 'V2', 'rung' => 0]);
        $this->send('POST', 'ledger', ['views' => '[0,"",""]']);
        $file = (string) $this->get($this->path('grid/file?lens=layers'))
            ->assertOk()
            ->assertHeader('Content-Type', 'text/csv; charset=UTF-8')
            ->getContent();
        self::assertStringContainsString('"\'=SUM(A1), ""second"" #2"', $file);
        $this->send('POST', 'grid/preview', ['sheet' => $file])
            ->assertOk()
            ->assertSee('cells change in')
            ->assertDontSee('Change them');
        $layer = $this->bench()->layers()->path(3);
        $changed = str_replace("layer,3,\"$layer\"", "layer,3,\"$layer\"", $file);
        $lines = explode("\n", $changed);
        $cells = str_getcsv($lines[3], escape: '');
        $cells[3] = 'ghost';
        $lines[3] = implode(';', array_map(static fn (?string $cell): string => '"'.$cell.'"', $cells));
        $lines = [
            implode(
                ';',
                array_map(
                    static fn (?string $cell): string => '"'.str_replace('"', '""', (string) $cell).'"',
                    str_getcsv($lines[0], escape: ''),
                ),
            ),
            $lines[3],
            'layer;9999;gone;Full',
            'nothing;1',
        ];
        $sheet = implode("\r\n", $lines);
        $this->send('POST', 'grid/preview', ['sheet' => $sheet])
            ->assertSee('1</strong> cell changes in', false)
            ->assertSee('2 of its rows are not in this project');
        $this->send('POST', 'grid/read', ['sheet' => $sheet])->assertSee('Read a grid into 1 views: ');
        $key = 'L'.$cells[1];
        self::assertSame([2, null], [$this->column($key)[0], $this->column($key)[4]]);
        $this->send('POST', 'undo');
        self::assertNull($this->column($key)[0]);
    }

    public function test_a_thousand_lines_of_anything_are_a_sheet_or_a_clear_refusal(): void
    {
        mt_srand(5);
        $pieces = [
            'Row',
            'Number',
            'Name',
            'View 1',
            'View 2 #2',
            ',',
            ';',
            "\n",
            '"',
            'layer',
            '3',
            'Full',
            '0',
            "\0",
            "\xFF",
            'ö',
            '=',
            '#1',
        ];
        $refused = 0;
        for ($round = 0; $round < 400; $round++) {
            $text = mt_rand(0, 1) === 0 ? "Row,Number,Name,View 1\n" : '';
            for ($piece = mt_rand(0, 30); $piece > 0; $piece--) {
                $text .= $pieces[array_rand($pieces)];
            }
            try {
                self::assertGreaterThanOrEqual(0, GridSheet::read($this->bench(), $text)->changing);
            } catch (Refused $no) {
                self::assertStringEndsWith('.', $no->getMessage());
                $refused++;
            }
        }
        self::assertGreaterThan(50, $refused);
    }

    public function test_what_somebody_sets_in_a_view_it_knows_from_then_on(): void
    {
        $this->send('POST', 'pick', ['found' => 1, 'words' => 'seat_shell_00*', 'mode' => 'replace']);
        $this->send('POST', 'layers', ['name' => 'Cushions', 'from_pick' => 1]);
        $late = $this->layer($this->project, 'Cushions');
        self::assertFalse($this->bench()->newTo()->known($this->saved(1))->layer($late));
        $this->send('POST', 'grid', ['keys' => "L$late", 'columns' => 'V1', 'rung' => 0]);
        self::assertSame(
            [true, false],
            [$this->bench()->newTo()->known($this->saved(1))->layer($late), $this->bench()->newTo()->known($this->saved(2))->layer($late)],
        );
        $this->send('POST', 'pick', ['found' => 1, 'words' => 'lifering*', 'mode' => 'replace']);
        $this->send('POST', 'file', ['layer' => $late])->assertSee('1 view shows something differently now.');
    }

    /** @return list<int|null> what the ten views keep for a row */
    private function column(string $key): array
    {
        $number = (int) substr($key, 1);

        return array_map(fn (int $view): ?int => $this->saved($view)->settings()->layer($number)?->value, range(1, 10));
    }

    private function saved(int $number): View
    {
        return $this->project->views()->where('no', $number)->firstOrFail();
    }
}
