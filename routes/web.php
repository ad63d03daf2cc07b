<?php

declare(strict_types=1);

use App\Http\Controllers\BcfController;
use App\Http\Controllers\CameraController;
use App\Http\Controllers\CanvasController;
use App\Http\Controllers\CompareController;
use App\Http\Controllers\DeskController;
use App\Http\Controllers\DetailsController;
use App\Http\Controllers\ExportController;
use App\Http\Controllers\FilingController;
use App\Http\Controllers\FindController;
use App\Http\Controllers\GridController;
use App\Http\Controllers\HistoryController;
use App\Http\Controllers\ImportController;
use App\Http\Controllers\IsolationController;
use App\Http\Controllers\KeptFileController;
use App\Http\Controllers\LayerController;
use App\Http\Controllers\LayoutController;
use App\Http\Controllers\LedgerController;
use App\Http\Controllers\LightenController;
use App\Http\Controllers\MembershipController;
use App\Http\Controllers\MeshController;
use App\Http\Controllers\NamesController;
use App\Http\Controllers\NestingController;
use App\Http\Controllers\ObjectController;
use App\Http\Controllers\OrganizerController;
use App\Http\Controllers\OutputController;
use App\Http\Controllers\ParkedController;
use App\Http\Controllers\PickController;
use App\Http\Controllers\PicturesController;
use App\Http\Controllers\PresentationController;
use App\Http\Controllers\ProjectController;
use App\Http\Controllers\ReachController;
use App\Http\Controllers\RenameController;
use App\Http\Controllers\SectionController;
use App\Http\Controllers\SessionController;
use App\Http\Controllers\SetController;
use App\Http\Controllers\ShareLinkController;
use App\Http\Controllers\ShownController;
use App\Http\Controllers\SightController;
use App\Http\Controllers\SortingRulesController;
use App\Http\Controllers\SourceController;
use App\Http\Controllers\SummaryController;
use App\Http\Controllers\TagController;
use App\Http\Controllers\TidyController;
use App\Http\Controllers\TintController;
use App\Http\Controllers\ViewController;
use App\Http\Controllers\ViewsController;
use App\Http\Controllers\WeightController;
use App\Http\Controllers\WholeDeskController;
use App\Http\Controllers\WhyController;
use App\Http\Controllers\WhyRowsController;
use App\Http\Controllers\WorkbenchController;
use App\Http\Middleware\BringBench;
use App\Http\Middleware\BringShown;
use App\Models\Lightening;
use Illuminate\Support\Facades\Route;

// Every route says who may use it: "guest", or "auth" alone for what is a person's own, or "can" for a project or an import.

Route::middleware('guest')->group(function (): void {
    Route::get('/sign-in', [SessionController::class, 'create'])->name('sign-in');
    Route::post('/sign-in', [SessionController::class, 'store'])->middleware('throttle:sign-in');
});

// Whoever has the link: all that these answer with is what it shows.
Route::prefix('/shown/{token}')
    ->middleware(['throttle:computing', BringShown::class])
    ->group(function (): void {
        Route::get('/', [ShownController::class, 'show'])->name('shown');
        Route::post('/', [ShownController::class, 'open'])
            ->middleware('throttle:links')
            ->name('shown.open');
        Route::get('/records', [ShownController::class, 'records']);
        Route::get('/steps/{step}', [ShownController::class, 'step']);
        Route::get('/steps/{step}/objects/{object}', [ShownController::class, 'object']);
        Route::get('/faces/{step}', [ShownController::class, 'faces']);
        Route::get('/versions', [ShownController::class, 'versions']);
        Route::get('/packs/{pack}', [ShownController::class, 'pack']);
        Route::get('/textures/{texture}', [ShownController::class, 'texture']);
        Route::post('/comments', [ShownController::class, 'comment'])->middleware('throttle:comments');
    });

Route::middleware('auth')->group(function (): void {
    Route::redirect('/', '/projects');
    Route::post('/sign-out', [SessionController::class, 'destroy'])->name('sign-out');
    Route::post('/hints', [SessionController::class, 'hint'])->name('hints');
    Route::post('/theme', [SessionController::class, 'theme'])->name('theme');
    Route::get('/projects', [ProjectController::class, 'index'])->name('projects');
    Route::get('/imports/room', [ImportController::class, 'room'])
        ->middleware('throttle:room')
        ->name('imports.room');
    Route::post('/imports', [ImportController::class, 'store'])
        ->middleware('throttle:uploads')
        ->name('imports.store');

    Route::middleware('can:own,import')->group(function (): void {
        Route::get('/imports/{import}', [ImportController::class, 'show'])->name('imports.show');
        Route::post('/imports/{import}/stop', [ImportController::class, 'stop'])->name('imports.stop');
        Route::delete('/imports/{import}', [ImportController::class, 'destroy'])->name('imports.destroy');
    });

    Route::middleware('can:own,project')->group(function (): void {
        Route::patch('/projects/{project}', [ProjectController::class, 'update'])->name('projects.update');
        Route::delete('/projects/{project}', [ProjectController::class, 'destroy'])->name('projects.destroy');
    });

    // What lies in files that the web server sends computes nothing.
    Route::prefix('/projects/{project}')
        ->middleware(['can:see,project', BringBench::class])
        ->group(function (): void {
            Route::get('/packs/{pack}', [KeptFileController::class, 'pack'])->name('packs');
            Route::get('/textures/{texture}', [KeptFileController::class, 'texture'])->name('textures');
            Route::get('/views/{view}/picture', [KeptFileController::class, 'picture'])->name('views.picture');
            Route::get('/picture', [KeptFileController::class, 'projectPicture'])->name('projects.picture');
        });

    Route::prefix('/projects/{project}')
        ->middleware(['throttle:computing', 'can:see,project', BringBench::class])
        ->group(function (): void {
            Route::get('/', [WorkbenchController::class, 'show'])->name('workbench');
            Route::get('/report/{source}', [ProjectController::class, 'report'])->name('projects.report');
            Route::get('/ledger', [LedgerController::class, 'rows'])->name('ledger');
            Route::post('/ledger', [LedgerController::class, 'arrange'])->name('ledger.arrange');
            Route::post('/ledger/window', [LedgerController::class, 'window'])->name('ledger.window');
            Route::get('/ledger/keys', [LedgerController::class, 'keys'])->name('ledger.keys');
            Route::get('/ledger/place', [LedgerController::class, 'place'])->name('ledger.place');
            Route::get('/waiting', [HistoryController::class, 'waiting'])->name('waiting');
            Route::get('/pulse', [WorkbenchController::class, 'pulse'])->name('pulse');
            Route::get('/records', [CanvasController::class, 'records'])->name('records');
            Route::post('/records', [CanvasController::class, 'some'])->name('records.some');
            Route::get('/exports/ask', [ExportController::class, 'ask'])->name('exports.ask');
            Route::post('/exports', [ExportController::class, 'store'])->name('exports.store');
            Route::get('/exports/{export}', [ExportController::class, 'show'])->name('exports.show');
            Route::post('/exports/{export}/stop', [ExportController::class, 'stop'])->name('exports.stop');
            Route::get('/exports/{export}/file', [ExportController::class, 'file'])->name('exports.file');
            Route::post('/lighten', [LightenController::class, 'store'])->name('lighten.store');
            Route::get('/lighten/{lightening}', [LightenController::class, 'show'])->name('lighten.show');
            Route::post('/lighten/{lightening}/stop', [LightenController::class, 'stop'])->name('lighten.stop');
            Route::post('/lighten/{lightening}/apply', [LightenController::class, 'apply'])->name('lighten.apply');
            Route::post('/lighten/{lightening}/back', [LightenController::class, 'giveBack'])->name('lighten.back');
            Route::post('/lighten/{lightening}/pick', [LightenController::class, 'pick'])->name('lighten.pick');
            Route::get('/lighten/{lightening}/{picture}.png', [LightenController::class, 'picture'])
                ->whereIn('picture', Lightening::PICTURES)
                ->name('lighten.picture');
            Route::get('/weight', [WeightController::class, 'show'])->name('weight');
            Route::post('/weight/pick', [WeightController::class, 'pick'])->name('weight.pick');
            Route::get('/versions', [CanvasController::class, 'versions'])->name('versions');
            Route::get('/meshes', [CanvasController::class, 'meshes'])->name('meshes');
            Route::get('/ledger/columns', [LedgerController::class, 'columns'])->name('ledger.columns');
            Route::get('/grid/cells', [GridController::class, 'cells'])->name('grid.cells');
            Route::get('/grid/file', [GridController::class, 'file'])->name('grid.file');
            Route::get('/layouts', [LayoutController::class, 'index'])->name('layouts');
            Route::post('/layouts', [LayoutController::class, 'store'])->name('layouts.store');
            Route::post('/layouts/{layout}/apply', [LayoutController::class, 'apply'])->name('layouts.apply');
            Route::patch('/layouts/{layout}', [LayoutController::class, 'update'])->name('layouts.update');
            Route::delete('/layouts/{layout}', [LayoutController::class, 'destroy'])->name('layouts.destroy');
            Route::get('/ledger/ahead', [LedgerController::class, 'ahead'])->name('ledger.ahead');
            Route::get('/find/complete', [FindController::class, 'complete'])->name('find.complete');
            Route::get('/find/narrow', [FindController::class, 'narrow'])->name('find.narrow');
            Route::get('/find/step', [FindController::class, 'step'])->name('find.step');
            Route::get('/find/sight', [SightController::class, 'sight'])->name('find.sight');
            Route::get('/find/frame', [SightController::class, 'frame'])->name('find.frame');
            Route::get('/find/names', NamesController::class)->name('find.names');
            Route::get('/memberships', [MembershipController::class, 'ask'])->name('memberships.ask');
            Route::get('/details', [DetailsController::class, 'show'])->name('details');
            Route::get('/takes', [CanvasController::class, 'takes'])->name('takes');
            Route::post('/here', [SightController::class, 'here'])->name('here');
            Route::get('/cameras', [CameraController::class, 'index'])->name('cameras');
            Route::get('/tint', [TintController::class, 'show'])->name('tint');
            Route::get('/edges', [TintController::class, 'edges'])->name('edges');
            Route::post('/edges', [TintController::class, 'turnEdges'])->name('edges.turn');
            Route::post('/tint', [TintController::class, 'update'])->name('tint.update');
            Route::post('/tint/pick', [TintController::class, 'pick'])->name('tint.pick');
            Route::post('/pick', [PickController::class, 'pick'])->name('pick');
            Route::post('/pick/region', [PickController::class, 'region'])->name('pick.region');
            Route::get('/pick/reach', [ReachController::class, 'ask'])->name('pick.ways');
            Route::post('/pick/reach', [ReachController::class, 'reach'])->name('pick.reach');
            Route::post('/pick/meet', [SightController::class, 'meet'])->name('pick.meet');
            Route::post('/pick/step', [PickController::class, 'step'])->name('pick.step');
            Route::post('/parked/{slot}', [ParkedController::class, 'park'])
                ->where('slot', '[1-9]')
                ->name('park');
            Route::post('/parked/{slot}/recall', [ParkedController::class, 'recall'])
                ->where('slot', '[1-9]')
                ->name('park.recall');
            Route::post('/pins', [ParkedController::class, 'pin'])->name('pins');
            Route::post('/isolate', [IsolationController::class, 'isolate'])->name('isolate');
            Route::post('/isolate/back', [IsolationController::class, 'back'])->name('isolate.back');
            Route::post('/rungs', [DeskController::class, 'rung'])->name('rungs');
            Route::post('/rungs/whole', [WholeDeskController::class, 'show'])->name('rungs.whole');
            Route::post('/rungs/step', [WholeDeskController::class, 'step'])->name('rungs.step');
            Route::post('/rungs/ceiling', [WholeDeskController::class, 'ceiling'])->name('rungs.ceiling');
            Route::post('/isolate/layer', [WholeDeskController::class, 'alone'])->name('isolate.layer');
            Route::post('/rungs/turn', [OrganizerController::class, 'turn'])->name('rungs.turn');
            Route::get('/landing', [DeskController::class, 'askLanding'])->name('landing.ask');
            Route::post('/landing', [DeskController::class, 'landing'])->name('landing');
            Route::post('/section', [SectionController::class, 'set'])->name('section');
            Route::post('/section/around', [SectionController::class, 'around'])->name('section.around');
            Route::get('/section/levels', [SectionController::class, 'levels'])->name('section.levels');
            Route::get('/section/faces', [SectionController::class, 'faces'])->name('section.faces');
            Route::post('/shows', [OutputController::class, 'show'])->name('shows');
            Route::post('/pick/differing', [OutputController::class, 'differing'])->name('pick.differing');
            Route::post('/desk/undo', [DeskController::class, 'undo'])->name('desk.undo');
            Route::post('/desk/redo', [DeskController::class, 'redo'])->name('desk.redo');
            Route::get('/objects/{object}', [ObjectController::class, 'about'])->name('objects.about');
            Route::get('/why', [WhyRowsController::class, 'show'])->name('why.rows');
            Route::post('/why', [WhyRowsController::class, 'mend'])->name('why.rows.mend');
            Route::get('/why/{object}', [WhyController::class, 'show'])->name('why');
            // Rungs are the person's own; opening what is locked asks for more.
            Route::post('/why/{object}', [WhyController::class, 'mend'])->name('why.mend');
            Route::get('/bcf', [BcfController::class, 'write'])->name('bcf.write');
            Route::get('/comments', [ShareLinkController::class, 'comments'])->name('comments');
            Route::get('/walk/{views}', [PresentationController::class, 'show'])->name('walk');
            Route::get('/walk/{views}/records', [PresentationController::class, 'records']);
            Route::get('/walk/{views}/steps/{step}', [PresentationController::class, 'step']);
            Route::get('/walk/{views}/faces/{step}', [PresentationController::class, 'faces']);
            Route::get('/pictures/{views}', [PicturesController::class, 'show'])->name('pictures');
            Route::get('/stills/{view}', [PicturesController::class, 'still'])->name('stills');
            Route::get('/stills/{view}/faces', [PicturesController::class, 'faces']);
            Route::get('/compare', [CompareController::class, 'show'])->name('compare');
            Route::post('/compare', [CompareController::class, 'tint'])->name('compare.tint');
            Route::post('/compare/pick', [CompareController::class, 'pick'])->name('compare.pick');
            Route::get('/summary', [SummaryController::class, 'show'])->name('summary');
            Route::get('/summary.csv', [SummaryController::class, 'file'])->name('summary.file');
            Route::get('/tidy', [TidyController::class, 'show'])->name('tidy');
            Route::post('/tidy/run', [TidyController::class, 'run'])->name('tidy.run');
            Route::post('/tidy/stop', [TidyController::class, 'stop'])->name('tidy.stop');
            Route::post('/tidy/pick', [TidyController::class, 'pick'])->name('tidy.pick');
            Route::get('/changes', [HistoryController::class, 'show'])->name('changes');
            Route::post('/changes/pick', [HistoryController::class, 'pick'])->name('changes.pick');
            Route::get('/sorting-rules', [SortingRulesController::class, 'show'])->name('sorting-rules');
            Route::post('/sorting-rules/pick', [SortingRulesController::class, 'pick'])->name('sorting-rules.pick');
            Route::get('/sorting-rules/file', [SortingRulesController::class, 'file'])->name('sorting-rules.file');
            Route::post('/views/{view}/apply', [ViewController::class, 'apply'])->name('views.apply');
        });

    Route::prefix('/projects/{project}')
        ->middleware(['throttle:computing', 'can:change,project', BringBench::class])
        ->group(function (): void {
            Route::post('/layers', [LayerController::class, 'store'])->name('layers.store');
            Route::get('/layers/delete', [LayerController::class, 'askDelete'])->name('layers.askDelete');
            Route::delete('/layers', [LayerController::class, 'destroySeveral'])->name('layers.destroySeveral');
            Route::get('/layers/{layer}/delete', [LayerController::class, 'ask'])->name('layers.ask');
            Route::delete('/layers/{layer}', [LayerController::class, 'destroy'])->name('layers.destroy');
            Route::get('/layers/several', [LayerController::class, 'askSeveral'])->name('layers.askSeveral');
            Route::post('/layers/several', [LayerController::class, 'several'])->name('layers.several');
            Route::get('/layers/merge', [LayerController::class, 'askMerge'])->name('layers.askMerge');
            Route::post('/layers/merge', [LayerController::class, 'merge'])->name('layers.merge');
            Route::get('/layers/clear', [LayerController::class, 'askClear'])->name('layers.askClear');
            Route::post('/layers/clear', [LayerController::class, 'clear'])->name('layers.clear');
            Route::post('/layers/{layer}/empty', [LayerController::class, 'empty'])->name('layers.empty');
            Route::get('/rows/move', [OrganizerController::class, 'askMove'])->name('rows.askMove');
            Route::post('/rows/move', [OrganizerController::class, 'move'])->name('rows.move');
            Route::get('/rows/delete', [OrganizerController::class, 'askDelete'])->name('rows.askDelete');
            Route::delete('/rows', [OrganizerController::class, 'destroy'])->name('rows.destroy');
            Route::patch('/rows', [OrganizerController::class, 'updateSeveral'])->name('rows.updateSeveral');
            Route::patch('/rows/{row}', [OrganizerController::class, 'update'])->name('rows.update');
            Route::get('/rows/{row}/hold-back', [OrganizerController::class, 'askHoldBack'])->name('rows.askHoldBack');
            Route::get('/rows/{row}/note', [OrganizerController::class, 'note'])->name('rows.note');
            Route::post('/folders', [OrganizerController::class, 'folder'])->name('folders.store');
            Route::post('/tags', [TagController::class, 'store'])->name('tags.store');
            Route::get('/tags/merge', [TagController::class, 'askMerge'])->name('tags.askMerge');
            Route::post('/tags/merge', [TagController::class, 'merge'])->name('tags.merge');
            Route::post('/memberships', [MembershipController::class, 'change'])->name('memberships');
            Route::get('/own', [DetailsController::class, 'ask'])->name('own.ask');
            Route::post('/own', [DetailsController::class, 'set'])->name('own.set');
            Route::get('/tag', [TagController::class, 'choose'])->name('tag.choose');
            Route::post('/tag', [TagController::class, 'tag'])->name('tag');
            Route::get('/sets/new', [SetController::class, 'create'])->name('sets.create');
            Route::post('/sets', [SetController::class, 'store'])->name('sets.store');
            Route::get('/sets/{set}/join', [SetController::class, 'askJoin'])->name('sets.join.ask');
            Route::post('/sets/{set}/join', [SetController::class, 'join'])->name('sets.join');
            Route::post('/sets/{set}/members', [SetController::class, 'members'])->name('sets.members');
            Route::get('/file', [FilingController::class, 'choose'])->name('file.choose');
            Route::post('/file', [FilingController::class, 'file'])->name('file');
            Route::post('/file/along', [FilingController::class, 'along'])->name('file.along');
            Route::get('/output', [OutputController::class, 'ask'])->name('output.ask');
            Route::post('/output', [OutputController::class, 'set'])->name('output.set');
            Route::post('/locks/whole', [WholeDeskController::class, 'locks'])->name('locks.whole');
            Route::post('/backdrop', [WholeDeskController::class, 'backdrop'])->name('backdrop');
            Route::post('/locks', [FilingController::class, 'lock'])->name('locks');
            Route::get('/rename', [RenameController::class, 'ask'])->name('rename.ask');
            Route::post('/rename/preview', [RenameController::class, 'preview'])->name('rename.preview');
            Route::post('/rename', [RenameController::class, 'store'])->name('rename.store');
            Route::patch('/objects/{object}', [ObjectController::class, 'rename'])->name('objects.rename');
            Route::get('/share-links', [ShareLinkController::class, 'index'])->name('share-links');
            Route::post('/share-links', [ShareLinkController::class, 'store'])->name('share-links.store');
            Route::post('/share-links/{link}/revoke', [ShareLinkController::class, 'revoke'])->name('share-links.revoke');
            Route::post('/share-links/{link}/change', [ShareLinkController::class, 'change'])->name('share-links.change');
            Route::post('/comments/{comment}/settle', [ShareLinkController::class, 'settle'])->name('comments.settle');
            Route::post('/bcf', [BcfController::class, 'read'])->name('bcf.read');
            Route::post('/cameras', [CameraController::class, 'keep'])->name('cameras.keep');
            Route::get('/cameras/around', [CameraController::class, 'askAround'])->name('cameras.askAround');
            Route::post('/cameras/around', [CameraController::class, 'around'])->name('cameras.around');
            Route::post('/cameras/hold', [CameraController::class, 'hold'])->name('cameras.hold');
            Route::post('/grid', [GridController::class, 'set'])->name('grid.set');
            Route::post('/grid/preview', [GridController::class, 'preview'])->name('grid.preview');
            Route::post('/grid/read', [GridController::class, 'read'])->name('grid.read');
            Route::post('/grid/copy', [GridController::class, 'copy'])->name('grid.copy');
            Route::post('/grid/paste', [GridController::class, 'paste'])->name('grid.paste');
            Route::get('/views/facets', [ViewsController::class, 'askFacets'])->name('views.askFacets');
            Route::post('/views/facets', [ViewsController::class, 'facets'])->name('views.facets');
            Route::post('/views/newcomers', [ViewsController::class, 'newcomers'])->name('views.newcomers');
            Route::get('/views/review', [ViewsController::class, 'askReview'])->name('views.askReview');
            Route::post('/views/review', [ViewsController::class, 'review'])->name('views.review');
            Route::post('/views/duplicate', [ViewsController::class, 'duplicate'])->name('views.duplicate');
            Route::post('/views/as-they-were', [ViewsController::class, 'asTheyWere'])->name('views.asTheyWere');
            Route::delete('/views', [ViewsController::class, 'destroy'])->name('views.destroySeveral');
            Route::get('/views/new', [ViewController::class, 'create'])->name('views.create');
            Route::post('/views', [ViewController::class, 'store'])->name('views.store');
            Route::get('/views/{view}/meant', [ViewController::class, 'askMeant'])->name('views.askMeant');
            Route::post('/views/{view}/meant', [ViewController::class, 'meant'])->name('views.meant');
            Route::get('/views/{view}/update', [ViewController::class, 'preview'])->name('views.preview');
            Route::post('/views/{view}/picture', [ViewController::class, 'portray'])->name('views.portray');
            Route::patch('/views/{view}', [ViewController::class, 'update'])->name('views.update');
            Route::delete('/views/{view}', [ViewController::class, 'destroy'])->name('views.destroy');
            Route::get('/objects/means', [NestingController::class, 'means'])->name('objects.means');
            Route::post('/objects/group', [NestingController::class, 'group'])->name('objects.group');
            Route::post('/objects/ungroup', [NestingController::class, 'ungroup'])->name('objects.ungroup');
            Route::get('/objects/nest', [NestingController::class, 'askNest'])->name('objects.askNest');
            Route::post('/objects/nest', [NestingController::class, 'nest'])->name('objects.nest');
            Route::post('/objects/shift', [NestingController::class, 'shift'])->name('objects.shift');
            Route::get('/objects/order', [NestingController::class, 'askOrder'])->name('objects.askOrder');
            Route::post('/objects/order', [NestingController::class, 'order'])->name('objects.order');
            Route::get('/objects/copy', [NestingController::class, 'askCopy'])->name('objects.askCopy');
            Route::post('/objects/copy', [NestingController::class, 'copy'])->name('objects.copy');
            Route::post('/objects/delete', [NestingController::class, 'delete'])->name('objects.delete');
            Route::get('/sorting-rules/ask', [SortingRulesController::class, 'ask'])->name('sorting-rules.ask');
            Route::post('/sorting-rules', [SortingRulesController::class, 'store'])->name('sorting-rules.store');
            Route::post('/sorting-rules/run', [SortingRulesController::class, 'run'])->name('sorting-rules.run');
            Route::post('/sorting-rules/coming', [SortingRulesController::class, 'coming'])->name('sorting-rules.coming');
            Route::get('/sorting-rules/proposed', [SortingRulesController::class, 'propose'])->name('sorting-rules.propose');
            Route::post('/sorting-rules/ask-read', [SortingRulesController::class, 'askRead'])->name('sorting-rules.askRead');
            Route::post('/sorting-rules/read', [SortingRulesController::class, 'read'])->name('sorting-rules.read');
            Route::post('/sorting-rules/{line}/move', [SortingRulesController::class, 'move'])->name('sorting-rules.move');
            Route::post('/sorting-rules/{line}/{act}', [SortingRulesController::class, 'act'])
                ->whereIn('act', ['on', 'off', 'up', 'down', 'duplicate', 'delete'])
                ->name('sorting-rules.act');
            Route::patch('/sorting-rules/{line}', [SortingRulesController::class, 'update'])->name('sorting-rules.update');
            Route::get('/sources/{source}/original', [SourceController::class, 'original'])->name('sources.original');
            Route::delete('/sources/{source}/original', [SourceController::class, 'removeOriginal'])->name('sources.original.remove');
            Route::get('/sources/ask', [SourceController::class, 'ask'])->name('sources.ask');
            Route::get('/sources/{source}/unsure', [SourceController::class, 'askUnsure'])->name('sources.unsure');
            Route::post('/sources/{source}/match', [SourceController::class, 'match'])->name('sources.match');
            Route::get('/sources/{source}/hold-back', [ExportController::class, 'askHoldBack'])->name('sources.askHoldBack');
            Route::post('/sources/{source}/hold-back', [ExportController::class, 'holdBack'])->name('sources.holdBack');
            Route::post('/meshes/coarser', [MeshController::class, 'coarser'])->name('meshes.coarser');
            Route::post('/meshes/finer', [MeshController::class, 'finer'])->name('meshes.finer');
            Route::post('/meshes/share', [MeshController::class, 'share'])->name('meshes.share');
            Route::post('/picture', [KeptFileController::class, 'keepProjectPicture'])->name('projects.picture.keep');
            Route::post('/tidy/mend', [TidyController::class, 'mend'])->name('tidy.mend');
            Route::post('/tidy/wave', [TidyController::class, 'wave'])->name('tidy.wave');
            Route::post('/changes/back', [HistoryController::class, 'back'])->name('changes.back');
            Route::post('/changes/keep', [HistoryController::class, 'keep'])->name('changes.keep');
            Route::post('/undo', [HistoryController::class, 'undo'])->name('undo');
            Route::post('/redo', [HistoryController::class, 'redo'])->name('redo');
        });
});
