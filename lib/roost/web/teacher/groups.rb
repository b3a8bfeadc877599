# frozen_string_literal: true

module Roost
  module Web
    # Groups of a class for the next lesson, proposed from what each has, moved by hand, and kept as the groups of the class.
    class Groups < TeacherApp
      SEEDS = (0..999)

      get "/:id/groups" do
        page("classes/groups", title: "Groups for the next lesson", **about, undo: nil)
      end

      post "/:id/groups" do
        groups = table("groups")
        before = granted(Operations::GroupClass.new.keep(account_id, klass.id, groups))
        page("classes/groups", title: "Groups for the next lesson", **about(groups), undo: before)
      end

      post "/:id/groups/restore" do
        granted(Operations::GroupClass.new.restore(account_id, klass.id, table("groups")))
        redirect "/classes/#{klass.id}/groups?#{asked}", 303
      end

      helpers do
        def klass = @klass ||= Store::Classes.new.find(account_id, whole(params["id"])) || not_found

        def overview = @overview ||= Operations::WhoHasIt.new.call(account_id, klass.id)

        def way = Core::Analysis::Grouping::WAYS.key?(text("way")) ? text("way") : "alike"

        def size = Core::Analysis::Grouping::SIZES.cover?(number("size") || 0) ? number("size") : 3

        def seed = SEEDS.cover?(number("seed") || -1) ? number("seed") : 0

        # What groups are made on: what was chosen, or all there is.
        def names
          chosen = Array(params["about"]).grep(String) & overview.names
          chosen.any? ? chosen : overview.names
        end

        def asked(**changed)
          URI.encode_www_form({ "way" => way, "size" => size, "seed" => seed, "about[]" => names,
                                **changed.transform_keys(&:to_s) })
        end

        # @return [Hash{Integer=>String}] of a field each student
        def table(name)
          given = params[name].is_a?(Hash) ? params[name] : {}
          given.filter_map { |id, value| [id.to_i, value] if id.match?(/\A\d{1,18}\z/) && value.is_a?(String) }.to_h
        end

        # @param kept [Hash{Integer=>String}, nil] student to number, as it was saved
        def about(kept = nil)
          groups = kept ? by_number(kept) : Operations::GroupClass.new.propose(overview, names, way: way, size: size, seed: seed)
          { klass: klass, overview: overview, names: names, groups: groups }
        end

        # @return [Array<Array<Core::Student>>]
        def by_number(kept)
          grouped = overview.students.reject { |student| kept[student.id].to_s.empty? }
          grouped.group_by { |student| kept[student.id].to_i }.sort.map(&:last)
        end

        # What is known of a student in what groups are made on.
        def known(student)
          cells = names.filter_map { |name| (cell = overview.cell(student, name)) && "#{name} #{percent(cell.share)}" }
          cells.empty? ? "not seen yet" : cells.first(3).join(", ")
        end
      end
    end
  end
end
