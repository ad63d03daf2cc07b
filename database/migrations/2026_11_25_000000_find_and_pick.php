<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What finding and picking need: every material of a mesh, what views know, parked picks, isolating, tints, ledger layouts. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('meshes', function (Blueprint $table): void {
            $table->jsonb('materials')->default('[]');
        });
        Schema::table('views', function (Blueprint $table): void {
            $table->integer('known_object')->nullable();
        });
        Schema::table('desks', function (Blueprint $table): void {
            $table->binary('isolated')->nullable();
            $table->binary('parked')->nullable();
            $table->jsonb('tint')->default('{}');
        });
        Schema::create('ledger_layouts', function (Blueprint $table): void {
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->integer('no');
            $table->string('name');
            $table->jsonb('arrangement');
            $table->boolean('is_default')->default(false);
            $table->primary(['user_id', 'no']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('ledger_layouts');
        Schema::table('desks', fn (Blueprint $table) => $table->dropColumn(['isolated', 'parked', 'tint']));
        Schema::table('views', fn (Blueprint $table) => $table->dropColumn('known_object'));
        Schema::table('meshes', fn (Blueprint $table) => $table->dropColumn('materials'));
    }
};
