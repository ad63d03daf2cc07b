<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What a person had picked before, in the order of picking. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('picks', static function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->integer('no');
            $table->binary('pick');
            $table->primary(['project_id', 'user_id', 'no']);
        });
        Schema::table('desks', static fn (Blueprint $table) => $table->integer('pick_at')->default(0));
    }

    public function down(): void
    {
        Schema::table('desks', static fn (Blueprint $table) => $table->dropColumn('pick_at'));
        Schema::drop('picks');
    }
};
