# frozen_string_literal: true

module Roost
  module Operations
    # Brings classes and their students out of the school's own records in three steps: the teacher sees which classes
    # there are and chooses; she sees what would change; then that is done, all of it or nothing. The same package
    # again changes nothing. A class that is new becomes hers.
    class BringRoster
      # Classes that are compared at once.
      MOST = 40
      GONE = "That file isn't waiting here any more. Choose it again."
      NOTHING = "Choose at least one class."
      MANY = "Choose at most #{MOST} classes at a time.".freeze

      # here:: Hash of ids of classes to Store::Classes::Row, of those that she has
      Look = Struct.new(:overview, :here, :ticket, keyword_init: true)

      # @param file [File]
      # @return [Core::Reading] of Look; refused in words that go on after the file's name
      def look_at(account_id, file)
        Exchange::OneRoster.overview(file.path).map do |overview|
          here = Store::Classes.new.of_roster(account_id, overview.groups.map(&:id))
          Look.new(overview: overview, here: here, ticket: Store::PendingUploads.new.keep(account_id, file)).freeze
        end
      end

      # @param ids [Array<String>] of classes in the package
      # @return [Core::Reading] of CompareRoster::Comparison; nothing is saved
      def compare(account_id, ticket, ids)
        path = Store::PendingUploads.new.find(account_id, ticket)
        path ? read(path, account_id, ids, &:call) : Core::Reading.refused(GONE)
      end

      # @param same [Array<String>, nil] as in CompareRoster
      # @return [Core::Reading] of the CompareRoster::Comparison that was carried out
      def call(account_id, ticket, ids, same: nil)
        taken = Store::PendingUploads.new.take(account_id, ticket) do |path|
          classes.one_roster_at_a_time do
            read(path, account_id, ids, same: same) do |comparing|
              comparing.call.and_then { |found| carry_out(account_id, comparing, found) }
            end
          end
        end
        taken || Core::Reading.refused(GONE)
      end

      private

      def classes = @classes ||= Store::Classes.new

      def students = @students ||= Store::Students.new

      # @yieldparam comparing [CompareRoster]
      def read(path, account_id, ids, same: nil)
        return Core::Reading.refused(MANY) if ids.length > MOST

        Exchange::OneRoster.overview(path).and_then do |overview|
          known = choices(account_id, overview) & ids
          next Core::Reading.refused(NOTHING) if known.empty? && (overview.bulk || overview.groups.any?)

          Exchange::OneRoster.chosen(path, known).and_then { |chosen| yield CompareRoster.new(account_id, chosen, same: same) }
        end
      end

      # A class that is only referred to, and not known here, can't be made.
      def choices(account_id, overview)
        here = classes.of_roster(account_id, overview.groups.map(&:id))
        overview.groups.select { |group| here.key?(group.id) || (group.title && !group.gone) }.map(&:id)
      end

      # One class after the other, each compared anew: who was new in the first is known in the second.
      # @return [Core::Reading] of the comparison
      def carry_out(account_id, comparing, found)
        done = found.classes.reduce(Core::Reading.ok(nil)) do |so_far, change|
          so_far.and_then { fill(account_id, comparing.anew(change)) }
        end
        done.map do
          found.people.each { |student, fields| students.change(student.id, fields) }
          students.keep_records(found.details)
          found.leavers.each { |student, places| places.each { |place| leave(place.first, [student]) } }
          found
        end
      end

      def fill(account_id, change)
        return archive(account_id, change) if change.group.gone

        kept(account_id, change).map do |id|
          Enrol.new.call(account_id, id, change.found.roll)
          leave(id, change.found.leaving)
          keep_details(id, change)
        end
      end

      def keep_details(id, change)
        classes.keep_records(id, change.details) if change.details
        new_ones = change.found.roll.of(:new).to_h { |row| [row.entry.given[:sourced_id], row] }
        ids = new_ones.any? ? students.of_roster(new_ones.keys).to_h { |student| [student.sourced_id, student.id] } : {}
        told = change.told.students.to_h { |person| [ids[person.id], person.details] }
        students.keep_records(change.people.merge(told.reject { |student, said| student.nil? || said.empty? }))
      end

      def archive(account_id, change)
        KeepClass.new.archive(account_id, change.row.id) if change.gone
        Core::Reading.ok(nil)
      end

      # @return [Core::Reading] of the id of the class
      def kept(account_id, change)
        group = change.group
        id = if change.row then Core::Reading.ok(change.row.id)
             else KeepClass.new.create(account_id, about(group))
             end
        id.map { |each| classes.change(each, sourced_id: group.id, rostered: true) && each }
      end

      def about(group)
        { name: group.title, subject: group.subject, year: group.year }
          .to_h { |field, said| [field.to_s, said.strip[0, KeepClass::LIMITS[field]]] }
      end

      def leave(class_id, gone)
        students.leave(class_id, gone.map(&:id))
        TellRunning.of_class(class_id)
      end
    end
  end
end
